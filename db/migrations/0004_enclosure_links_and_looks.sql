-- Up Migration

-- Cross-links that mean an enclosure: to_topic says where it stands. Enclosures with a look of their own.

ALTER TABLE crosslink
  ADD COLUMN to_enclosure uuid,
  ADD CHECK (to_enclosure IS NULL OR to_topic IS NOT NULL),
  ADD FOREIGN KEY (collection, to_enclosure) REFERENCES enclosure (collection, id) DEFERRABLE INITIALLY DEFERRED;
CREATE INDEX crosslink_to_enclosure ON crosslink (collection, to_enclosure) WHERE to_enclosure IS NOT NULL;
ALTER TABLE enclosure ADD COLUMN look jsonb;

-- Down Migration

ALTER TABLE enclosure DROP COLUMN look;
ALTER TABLE crosslink DROP COLUMN to_enclosure;
