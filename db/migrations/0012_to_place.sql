-- Up Migration

-- What is still to be placed hangs on a topic that stands nowhere on its map, and is no root of it.
ALTER TABLE topic
  DROP CONSTRAINT topic_place,
  ADD CONSTRAINT topic_place CHECK (CASE place
    WHEN 'root' THEN num_nonnulls(parent, rank, side, x, y) = 0
    WHEN 'arranged' THEN num_nonnulls(parent, rank) = 2 AND num_nonnulls(x, y) = 0
    WHEN 'by hand' THEN num_nonnulls(parent, rank, x, y) = 4
    WHEN 'loose' THEN num_nonnulls(parent, rank, side) = 0 AND num_nonnulls(x, y) = 2
    WHEN 'to place' THEN num_nonnulls(parent, rank, side, x, y) = 0
    ELSE false END),
  DROP CONSTRAINT one_root,
  ADD CONSTRAINT one_root EXCLUDE USING btree (collection WITH =, map WITH =)
    WHERE (place = 'root' AND NOT trashed) DEFERRABLE INITIALLY DEFERRED;

-- Down Migration

-- Refused while anything is still to be placed: before, there was no place for it.
ALTER TABLE topic
  DROP CONSTRAINT topic_place,
  ADD CONSTRAINT topic_place CHECK (CASE place
    WHEN 'root' THEN num_nonnulls(parent, rank, side, x, y) = 0
    WHEN 'arranged' THEN num_nonnulls(parent, rank) = 2 AND num_nonnulls(x, y) = 0
    WHEN 'by hand' THEN num_nonnulls(parent, rank, x, y) = 4
    WHEN 'loose' THEN num_nonnulls(parent, rank, side) = 0 AND num_nonnulls(x, y) = 2
    ELSE false END),
  DROP CONSTRAINT one_root,
  ADD CONSTRAINT one_root EXCLUDE USING btree (collection WITH =, map WITH =)
    WHERE (parent IS NULL AND x IS NULL AND NOT trashed) DEFERRABLE INITIALLY DEFERRED;
