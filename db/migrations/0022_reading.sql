-- Up Migration

-- Whether a source was read, and the files in whose place an attached one came.
ALTER TABLE weblink ADD COLUMN read boolean NOT NULL DEFAULT false;
ALTER TABLE attachment
  ADD COLUMN read boolean NOT NULL DEFAULT false,
  ADD COLUMN earlier uuid[] NOT NULL DEFAULT '{}';
CREATE INDEX attachment_earlier ON attachment USING gin (earlier);

-- Whether the text of a content has been taken out of it, and what came of it. Contents are read once, whoever has them.
CREATE TABLE file_reading (
  sha256 text PRIMARY KEY REFERENCES content ON DELETE CASCADE,
  state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'read', 'without text', 'failed')),
  -- How often it was begun: one over which two processes ended is not begun again.
  attempts integer NOT NULL DEFAULT 0
);
CREATE INDEX file_reading_waiting ON file_reading (sha256) WHERE state = 'waiting';
INSERT INTO file_reading (sha256) SELECT DISTINCT sha256 FROM file;

-- The text of a content, page by page; one page where it has none. The words as they are looked for.
CREATE TABLE file_text (
  sha256 text NOT NULL REFERENCES content ON DELETE CASCADE,
  page integer NOT NULL,
  text text NOT NULL,
  words tsvector NOT NULL,
  PRIMARY KEY (sha256, page)
);

-- One such job a collection at a time.
CREATE UNIQUE INDEX job_reading ON job (collection) WHERE kind = 'read files' AND state IN ('waiting', 'running', 'ending');

-- Down Migration

DROP INDEX job_reading;
DROP TABLE file_text, file_reading;
DROP INDEX attachment_earlier;
ALTER TABLE attachment DROP COLUMN read, DROP COLUMN earlier;
ALTER TABLE weblink DROP COLUMN read;
