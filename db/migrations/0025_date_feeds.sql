-- Up Migration

-- Addresses at which a calendar program may fetch the days that somebody may see, with a secret of which the hash is kept.
CREATE TABLE date_feed (
  secret_hash bytea PRIMARY KEY,
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  person uuid NOT NULL REFERENCES person ON DELETE CASCADE,
  made_at timestamptz NOT NULL DEFAULT now(),
  -- When somebody last fetched it; null where nobody has.
  fetched_at timestamptz,
  UNIQUE (collection, person)
);

-- Down Migration

DROP TABLE date_feed;
