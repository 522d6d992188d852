-- Up Migration

-- What a command reported beside the change it made: every decision of a merge. Kept as long as the collection.
CREATE TABLE report (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  change uuid NOT NULL,
  report jsonb NOT NULL,
  PRIMARY KEY (collection, change)
);

-- Down Migration

DROP TABLE report;
