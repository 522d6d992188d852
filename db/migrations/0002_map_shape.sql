-- Up Migration

-- How a map and its branches are set, numbered and framed.

ALTER TABLE map
  ADD COLUMN layout text NOT NULL DEFAULT 'both',
  ADD COLUMN spacing double precision NOT NULL DEFAULT 1,
  ADD COLUMN numbering text;

ALTER TABLE topic
  ADD COLUMN layout text,
  ADD COLUMN width double precision,
  ADD COLUMN numbering text,
  ADD COLUMN number text,
  ADD COLUMN dates jsonb;
-- A topic that hangs on another and has coordinates is placed by hand.
ALTER TABLE topic DROP CONSTRAINT topic_check1;

CREATE TABLE enclosure (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  topics uuid[] NOT NULL,
  title text NOT NULL,
  tone integer,
  trashed boolean NOT NULL DEFAULT false,
  PRIMARY KEY (collection, id)
);
ALTER TABLE enclosure ALTER COLUMN collection SET (n_distinct = 4);
CREATE INDEX enclosure_topics ON enclosure USING gin (topics);

-- Down Migration

DROP TABLE enclosure;
ALTER TABLE topic
  DROP COLUMN layout, DROP COLUMN width, DROP COLUMN numbering, DROP COLUMN number, DROP COLUMN dates,
  ADD CONSTRAINT topic_check1 CHECK (parent IS NULL OR x IS NULL);
ALTER TABLE map DROP COLUMN layout, DROP COLUMN spacing, DROP COLUMN numbering;
