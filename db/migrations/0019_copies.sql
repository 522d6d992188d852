-- Up Migration

-- What a topic was copied from, and what that said then.
ALTER TABLE topic ADD COLUMN copy_of jsonb;

-- Down Migration

ALTER TABLE topic DROP COLUMN copy_of;
