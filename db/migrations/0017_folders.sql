-- Up Migration

CREATE TABLE folder (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  title text NOT NULL,
  parent uuid,
  trashed boolean NOT NULL DEFAULT false,
  PRIMARY KEY (collection, id),
  FOREIGN KEY (collection, parent) REFERENCES folder DEFERRABLE INITIALLY DEFERRED
);
ALTER TABLE folder ALTER COLUMN collection SET (n_distinct = 4);

ALTER TABLE map
  ADD COLUMN folder uuid,
  ADD FOREIGN KEY (collection, folder) REFERENCES folder DEFERRABLE INITIALLY DEFERRED;
CREATE INDEX map_folder ON map (collection, folder) WHERE folder IS NOT NULL;

-- Down Migration

ALTER TABLE map DROP COLUMN folder;
DROP TABLE folder;
