-- Up Migration

-- Where a person put a map in the atlas, and where one was bent, a cross-link on its map.
ALTER TABLE map ADD COLUMN in_atlas jsonb;
ALTER TABLE crosslink ADD COLUMN bend jsonb;

-- The maps that a person chose to publish; null for all.
ALTER TABLE publication ADD COLUMN maps uuid[];

-- Down Migration

ALTER TABLE publication DROP COLUMN maps;
ALTER TABLE crosslink DROP COLUMN bend;
ALTER TABLE map DROP COLUMN in_atlas;
