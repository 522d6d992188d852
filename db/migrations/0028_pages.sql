-- Up Migration

-- The pages from which maps came, as they were when they were last brought in.
CREATE TABLE page (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  map uuid NOT NULL,
  path text NOT NULL,
  text text NOT NULL,
  topics uuid[] NOT NULL,
  trashed boolean NOT NULL DEFAULT false,
  FOREIGN KEY (collection, map) REFERENCES map (collection, id) DEFERRABLE INITIALLY DEFERRED,
  PRIMARY KEY (collection, id)
);
ALTER TABLE page ALTER COLUMN collection SET (n_distinct = 4);
CREATE INDEX page_map ON page (collection, map);

-- Down Migration

DROP TABLE page;
