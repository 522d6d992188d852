-- Up Migration

-- What is still to be placed hangs on a topic that stands nowhere on its map.
ALTER TABLE topic DROP CONSTRAINT topic_place;
ALTER TABLE topic ADD CONSTRAINT topic_place CHECK (CASE place
  WHEN 'root' THEN num_nonnulls(parent, rank, side, x, y) = 0
  WHEN 'arranged' THEN num_nonnulls(parent, rank) = 2 AND num_nonnulls(x, y) = 0
  WHEN 'by hand' THEN num_nonnulls(parent, rank, x, y) = 4
  WHEN 'loose' THEN num_nonnulls(parent, rank, side) = 0 AND num_nonnulls(x, y) = 2
  WHEN 'to place' THEN num_nonnulls(parent, rank, side, x, y) = 0
  ELSE false END);

-- Down Migration

-- Refused while anything is still to be placed: before, there was no place for it.
ALTER TABLE topic DROP CONSTRAINT topic_place;
ALTER TABLE topic ADD CONSTRAINT topic_place CHECK (CASE place
  WHEN 'root' THEN num_nonnulls(parent, rank, side, x, y) = 0
  WHEN 'arranged' THEN num_nonnulls(parent, rank) = 2 AND num_nonnulls(x, y) = 0
  WHEN 'by hand' THEN num_nonnulls(parent, rank, x, y) = 4
  WHEN 'loose' THEN num_nonnulls(parent, rank, side) = 0 AND num_nonnulls(x, y) = 2
  ELSE false END);
