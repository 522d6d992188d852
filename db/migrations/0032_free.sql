-- Up Migration

-- Whether everything below a topic keeps the place that it was given; at a root everything on the map.
ALTER TABLE topic ADD COLUMN free boolean NOT NULL DEFAULT false;

-- Down Migration

ALTER TABLE topic DROP COLUMN free;
