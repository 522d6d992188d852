-- Up Migration

-- How topics and maps look, and what marks topics: badges, tags, task states, pictures. Templates that people keep.

CREATE TABLE tag (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  name text NOT NULL,
  tone integer,
  trashed boolean NOT NULL DEFAULT false,
  PRIMARY KEY (collection, id)
);
ALTER TABLE tag ALTER COLUMN collection SET (n_distinct = 4);

CREATE TABLE look (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  name text NOT NULL,
  look jsonb NOT NULL,
  trashed boolean NOT NULL DEFAULT false,
  PRIMARY KEY (collection, id)
);
ALTER TABLE look ALTER COLUMN collection SET (n_distinct = 4);

CREATE TABLE template (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  name text NOT NULL,
  layout text NOT NULL,
  numbering text,
  lines jsonb NOT NULL,
  trashed boolean NOT NULL DEFAULT false,
  PRIMARY KEY (collection, id)
);
ALTER TABLE template ALTER COLUMN collection SET (n_distinct = 4);

ALTER TABLE topic
  ADD COLUMN look jsonb,
  ADD COLUMN branch_look jsonb,
  ADD COLUMN picture jsonb,
  ADD COLUMN badges text[] NOT NULL DEFAULT '{}',
  ADD COLUMN tags uuid[] NOT NULL DEFAULT '{}',
  ADD COLUMN held boolean NOT NULL DEFAULT false,
  ADD COLUMN task text;
ALTER TABLE map ADD COLUMN look jsonb;
ALTER TABLE enclosure ADD COLUMN note text NOT NULL DEFAULT '';
ALTER TABLE collection ADD COLUMN look jsonb;
ALTER TABLE file ADD COLUMN picture jsonb;

-- Pictures in the sizes in which they are shown, made from the content when first asked for.
CREATE TABLE thumbnail (
  sha256 text NOT NULL REFERENCES content ON DELETE CASCADE,
  width integer NOT NULL,
  bytes bytea NOT NULL,
  PRIMARY KEY (sha256, width)
);

-- Down Migration

DROP TABLE thumbnail;
ALTER TABLE file DROP COLUMN picture;
ALTER TABLE collection DROP COLUMN look;
ALTER TABLE enclosure DROP COLUMN note;
ALTER TABLE map DROP COLUMN look;
ALTER TABLE topic
  DROP COLUMN look, DROP COLUMN branch_look, DROP COLUMN picture, DROP COLUMN badges, DROP COLUMN tags, DROP COLUMN held,
  DROP COLUMN task;
DROP TABLE template;
DROP TABLE look;
DROP TABLE tag;
