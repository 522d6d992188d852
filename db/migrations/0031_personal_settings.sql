-- Up Migration

-- What somebody has set for themselves; what is missing is as for who has set nothing.
ALTER TABLE person ADD COLUMN settings jsonb NOT NULL DEFAULT '{}';

-- Down Migration
ALTER TABLE person DROP COLUMN settings;
