-- Up Migration

-- Who does it, how much work it is and how far; null where nothing is known.
ALTER TABLE topic ADD COLUMN work jsonb;

-- Down Migration

ALTER TABLE topic DROP COLUMN work;
