-- Up Migration

-- What was found when the web links of a collection were last looked at. No record: it comes and goes, and has no history.
CREATE TABLE web_check (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  url text NOT NULL,
  -- Null where somebody answers and the page is there; else why not, in words.
  trouble text,
  checked_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX web_check_collection ON web_check (collection);

-- One check a collection at a time.
CREATE UNIQUE INDEX job_checking ON job (collection) WHERE kind = 'check web links' AND state IN ('waiting', 'running', 'ending');

-- Down Migration

DROP INDEX job_checking;
DROP TABLE web_check;
