-- Up Migration

-- Whatever statistics say of a collection is wrong for the next one: those that they have not seen yet count as empty, and
-- are read whole to find one record. Without statistics the planner assumes a 200th part, and looks records up by id.
-- Stating the type anew drops what statistics there were.
SET CONSTRAINTS ALL IMMEDIATE;
ALTER TABLE change ALTER COLUMN collection RESET (n_distinct), ALTER COLUMN collection SET STATISTICS 0, ALTER COLUMN collection TYPE uuid;
ALTER TABLE map ALTER COLUMN collection RESET (n_distinct), ALTER COLUMN collection SET STATISTICS 0, ALTER COLUMN collection TYPE uuid;
ALTER TABLE topic ALTER COLUMN collection RESET (n_distinct), ALTER COLUMN collection SET STATISTICS 0, ALTER COLUMN collection TYPE uuid;
ALTER TABLE note ALTER COLUMN collection RESET (n_distinct), ALTER COLUMN collection SET STATISTICS 0, ALTER COLUMN collection TYPE uuid;
ALTER TABLE crosslink ALTER COLUMN collection RESET (n_distinct), ALTER COLUMN collection SET STATISTICS 0, ALTER COLUMN collection TYPE uuid;
ALTER TABLE weblink ALTER COLUMN collection RESET (n_distinct), ALTER COLUMN collection SET STATISTICS 0, ALTER COLUMN collection TYPE uuid;
ALTER TABLE file ALTER COLUMN collection RESET (n_distinct), ALTER COLUMN collection SET STATISTICS 0, ALTER COLUMN collection TYPE uuid;
ALTER TABLE attachment ALTER COLUMN collection RESET (n_distinct), ALTER COLUMN collection SET STATISTICS 0, ALTER COLUMN collection TYPE uuid;
ALTER TABLE enclosure ALTER COLUMN collection SET STATISTICS 0, ALTER COLUMN collection TYPE uuid;

-- Topics of a map are found by (collection, map, id), children by their ranks; what is left are the heads of a map.
CREATE INDEX topic_heads ON topic (collection, map) WHERE parent IS NULL;
DROP INDEX topic_map_parent;

-- Down Migration

CREATE INDEX topic_map_parent ON topic (collection, map, parent);
DROP INDEX topic_heads;
