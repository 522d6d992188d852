-- Up Migration

-- Topics of which a person has said that they are not to be linked.
ALTER TABLE topic ADD COLUMN apart uuid[] NOT NULL DEFAULT '{}';

-- Down Migration

ALTER TABLE topic DROP COLUMN apart;
