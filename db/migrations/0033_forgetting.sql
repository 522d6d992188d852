-- Up Migration

-- What was removed for good and still stands in the history: taken out of it in parts, also after a stop in between.
CREATE TABLE forgetting (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  records text[] NOT NULL,
  maps uuid[] NOT NULL,
  -- The numbers of the changes that are still to be looked through: after the first, up to the second.
  done bigint NOT NULL DEFAULT 0,
  last bigint NOT NULL
);
CREATE INDEX forgetting_collection ON forgetting (collection);

-- Down Migration

DROP TABLE forgetting;
