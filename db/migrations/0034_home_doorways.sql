-- Up Migration

-- Which maps arrive by a topic is looked for whenever one moves or goes.
CREATE INDEX map_home_doorway ON map (collection, home_doorway) WHERE home_doorway IS NOT NULL;

-- Down Migration

DROP INDEX map_home_doorway;
