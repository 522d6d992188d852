-- Up Migration

ALTER TABLE map ADD COLUMN in_atlas jsonb;

-- Down Migration

ALTER TABLE map DROP COLUMN in_atlas;
