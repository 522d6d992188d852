-- Up Migration

-- From when on the maps of a collection are called crowded; null for the usual limits.
ALTER TABLE collection ADD COLUMN limits jsonb;

-- Down Migration

ALTER TABLE collection DROP COLUMN limits;
