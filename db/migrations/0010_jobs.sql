-- Up Migration

-- Work that takes its time: who asked for it, how far it is, and which process is at it.
CREATE TABLE job (
  id uuid PRIMARY KEY,
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  person uuid NOT NULL,
  person_name text NOT NULL,
  kind text NOT NULL,
  label text NOT NULL,
  -- As JSON in text: what people bring in may hold signs that jsonb does not take.
  input text NOT NULL,
  -- What is still to be done, as far as the job has worked it out; kept so that whoever takes it over does the same.
  plan text,
  state text NOT NULL CHECK (state IN ('waiting', 'running', 'ending', 'done', 'failed', 'cancelled')),
  done integer NOT NULL DEFAULT 0,
  total integer NOT NULL DEFAULT 0,
  result jsonb,
  message text NOT NULL DEFAULT '',
  -- Until when the process that has it keeps others from taking it; each that takes it counts the fence up, and whoever comes
  -- with an older one writes nothing any more.
  lease_until timestamptz,
  fence integer NOT NULL DEFAULT 0,
  asked_at timestamptz NOT NULL DEFAULT now(),
  finished_at timestamptz
);
CREATE INDEX job_collection ON job (collection, asked_at);
CREATE INDEX job_open ON job (asked_at) WHERE state IN ('waiting', 'running', 'ending');
-- A collection is published once at a time.
CREATE UNIQUE INDEX job_publishing ON job (collection) WHERE kind = 'publish' AND state IN ('waiting', 'running', 'ending');

-- Several changes that are one step of history: the id of the first of them.
ALTER TABLE change ADD COLUMN step uuid;
CREATE INDEX change_step ON change (collection, step) WHERE step IS NOT NULL;

-- How far publishing is, is said by its job.
DELETE FROM publication WHERE change_number = 0 AND state <> 'done';
ALTER TABLE publication
  DROP COLUMN state, DROP COLUMN done, DROP COLUMN total, DROP COLUMN message, DROP COLUMN started_at;

-- Down Migration

ALTER TABLE publication
  ADD COLUMN state text NOT NULL DEFAULT 'done' CHECK (state IN ('running', 'done', 'failed')),
  ADD COLUMN done integer NOT NULL DEFAULT 0,
  ADD COLUMN total integer NOT NULL DEFAULT 0,
  ADD COLUMN message text NOT NULL DEFAULT '',
  ADD COLUMN started_at timestamptz NOT NULL DEFAULT now();
DROP INDEX change_step;
ALTER TABLE change DROP COLUMN step;
DROP TABLE job;
