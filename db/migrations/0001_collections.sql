-- Up Migration

CREATE TABLE person (
  id uuid PRIMARY KEY,
  name text NOT NULL,
  -- Null for somebody who began without an account.
  address text,
  password_hash text,
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK ((address IS NULL) = (password_hash IS NULL))
);
CREATE UNIQUE INDEX person_address ON person (lower(address));

-- Tokens are stored hashed: whoever reads this table cannot sign in with it.
CREATE TABLE session (
  token_hash bytea PRIMARY KEY,
  person uuid NOT NULL REFERENCES person ON DELETE CASCADE,
  created_at timestamptz NOT NULL DEFAULT now(),
  expires_at timestamptz NOT NULL
);
CREATE INDEX session_person ON session (person);

CREATE TABLE collection (
  id uuid PRIMARY KEY,
  title text NOT NULL,
  home_map uuid,
  trashed boolean NOT NULL DEFAULT false
);

-- The number of the last change. Its row is the lock under which changes of a collection are committed.
CREATE TABLE collection_counter (
  collection uuid PRIMARY KEY REFERENCES collection ON DELETE CASCADE,
  last bigint NOT NULL DEFAULT 0
);

CREATE TABLE membership (
  person uuid NOT NULL REFERENCES person ON DELETE CASCADE,
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  role text NOT NULL CHECK (role IN ('owner', 'editor', 'commenter', 'reader')),
  PRIMARY KEY (person, collection)
);
CREATE INDEX membership_collection ON membership (collection);

CREATE TABLE change (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  number bigint NOT NULL,
  id uuid NOT NULL,
  person uuid NOT NULL,
  person_name text NOT NULL,
  label text NOT NULL,
  undoes uuid,
  at timestamptz NOT NULL DEFAULT now(),
  edits jsonb NOT NULL,
  PRIMARY KEY (collection, number),
  UNIQUE (collection, id)
);
CREATE INDEX change_person ON change (collection, person, number DESC);

-- Ids are made by clients, so every key begins with the collection: nobody can reach into another one.

CREATE TABLE map (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  title text NOT NULL,
  home_doorway uuid,
  trashed boolean NOT NULL DEFAULT false,
  PRIMARY KEY (collection, id)
);
ALTER TABLE collection ADD FOREIGN KEY (id, home_map) REFERENCES map (collection, id) DEFERRABLE INITIALLY DEFERRED;

CREATE TABLE note (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  text text NOT NULL,
  trashed boolean NOT NULL DEFAULT false,
  PRIMARY KEY (collection, id)
);

CREATE TABLE topic (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  map uuid NOT NULL,
  parent uuid,
  rank text COLLATE "C" NOT NULL,
  side text CHECK (side IN ('left', 'right')),
  x double precision,
  y double precision,
  text text NOT NULL,
  note uuid,
  opens_map uuid,
  folded boolean NOT NULL DEFAULT false,
  trashed boolean NOT NULL DEFAULT false,
  UNIQUE (collection, map, id),
  CHECK ((x IS NULL) = (y IS NULL)),
  CHECK (parent IS NULL OR x IS NULL),
  FOREIGN KEY (collection, map) REFERENCES map (collection, id) DEFERRABLE INITIALLY DEFERRED,
  -- A topic stands on the map of its parent.
  FOREIGN KEY (collection, map, parent) REFERENCES topic (collection, map, id) DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (collection, note) REFERENCES note (collection, id) DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (collection, opens_map) REFERENCES map (collection, id) DEFERRABLE INITIALLY DEFERRED,
  -- No two siblings have one rank, trashed ones included.
  CONSTRAINT topic_rank UNIQUE (collection, parent, rank) DEFERRABLE INITIALLY DEFERRED,
  CONSTRAINT one_root EXCLUDE USING btree (collection WITH =, map WITH =)
    WHERE (parent IS NULL AND x IS NULL AND NOT trashed) DEFERRABLE INITIALLY DEFERRED,
  PRIMARY KEY (collection, id)
);
CREATE INDEX topic_map_parent ON topic (collection, map, parent);
CREATE INDEX topic_note ON topic (collection, note) WHERE note IS NOT NULL;
CREATE INDEX topic_opens_map ON topic (collection, opens_map) WHERE opens_map IS NOT NULL;
ALTER TABLE map ADD FOREIGN KEY (collection, home_doorway) REFERENCES topic (collection, id) DEFERRABLE INITIALLY DEFERRED;

CREATE TABLE crosslink (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  from_topic uuid NOT NULL,
  to_topic uuid,
  to_map uuid,
  label text NOT NULL,
  drawn text NOT NULL CHECK (drawn IN ('line', 'quiet', 'selected')),
  trashed boolean NOT NULL DEFAULT false,
  CHECK ((to_topic IS NULL) <> (to_map IS NULL)),
  FOREIGN KEY (collection, from_topic) REFERENCES topic (collection, id) DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (collection, to_topic) REFERENCES topic (collection, id) DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (collection, to_map) REFERENCES map (collection, id) DEFERRABLE INITIALLY DEFERRED,
  PRIMARY KEY (collection, id)
);
CREATE INDEX crosslink_from ON crosslink (collection, from_topic);
CREATE INDEX crosslink_to_topic ON crosslink (collection, to_topic) WHERE to_topic IS NOT NULL;
CREATE INDEX crosslink_to_map ON crosslink (collection, to_map) WHERE to_map IS NOT NULL;

CREATE TABLE weblink (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  topic uuid NOT NULL,
  url text NOT NULL,
  title text NOT NULL,
  rank text COLLATE "C" NOT NULL,
  trashed boolean NOT NULL DEFAULT false,
  FOREIGN KEY (collection, topic) REFERENCES topic (collection, id) DEFERRABLE INITIALLY DEFERRED,
  PRIMARY KEY (collection, id)
);
CREATE INDEX weblink_topic ON weblink (collection, topic);

-- The content of files, named by its SHA-256 and cut into chunks, shared by all files with the same content.
CREATE TABLE content (
  sha256 text PRIMARY KEY,
  size bigint NOT NULL
);
CREATE TABLE content_chunk (
  sha256 text NOT NULL REFERENCES content ON DELETE CASCADE,
  number integer NOT NULL,
  bytes bytea NOT NULL,
  PRIMARY KEY (sha256, number)
);

CREATE TABLE file (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  sha256 text NOT NULL REFERENCES content,
  name text NOT NULL,
  type text NOT NULL,
  size bigint NOT NULL,
  trashed boolean NOT NULL DEFAULT false,
  PRIMARY KEY (collection, id)
);

CREATE TABLE attachment (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  topic uuid NOT NULL,
  file uuid NOT NULL,
  rank text COLLATE "C" NOT NULL,
  trashed boolean NOT NULL DEFAULT false,
  FOREIGN KEY (collection, topic) REFERENCES topic (collection, id) DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (collection, file) REFERENCES file (collection, id) DEFERRABLE INITIALLY DEFERRED,
  PRIMARY KEY (collection, id)
);
CREATE INDEX attachment_topic ON attachment (collection, topic);
CREATE INDEX attachment_file ON attachment (collection, file);

-- One site a collection: its public address and the files of its newest publication.
CREATE TABLE publication (
  collection uuid PRIMARY KEY REFERENCES collection ON DELETE CASCADE,
  address text NOT NULL UNIQUE,
  state text NOT NULL CHECK (state IN ('running', 'done', 'failed')),
  done integer NOT NULL DEFAULT 0,
  total integer NOT NULL DEFAULT 0,
  message text NOT NULL DEFAULT '',
  change_number bigint NOT NULL DEFAULT 0,
  started_at timestamptz NOT NULL DEFAULT now(),
  finished_at timestamptz
);
CREATE TABLE publication_page (
  collection uuid NOT NULL REFERENCES publication ON DELETE CASCADE,
  path text COLLATE "C" NOT NULL,
  type text NOT NULL,
  bytes bytea,
  -- Set instead of bytes where the page is a file of the collection.
  content text REFERENCES content,
  PRIMARY KEY (collection, path),
  CHECK ((bytes IS NULL) <> (content IS NULL))
);

-- Sizes of collections differ by far. Told that there are few of them, the planner looks records up by id and never
-- reads a whole collection to find some.
ALTER TABLE change ALTER COLUMN collection SET (n_distinct = 4);
ALTER TABLE map ALTER COLUMN collection SET (n_distinct = 4);
ALTER TABLE topic ALTER COLUMN collection SET (n_distinct = 4);
ALTER TABLE note ALTER COLUMN collection SET (n_distinct = 4);
ALTER TABLE crosslink ALTER COLUMN collection SET (n_distinct = 4);
ALTER TABLE weblink ALTER COLUMN collection SET (n_distinct = 4);
ALTER TABLE file ALTER COLUMN collection SET (n_distinct = 4);
ALTER TABLE attachment ALTER COLUMN collection SET (n_distinct = 4);

-- Down Migration

DROP TABLE publication_page, publication, attachment, file, content_chunk, content, weblink, crosslink, topic, note, map, change, membership, collection_counter, collection, session, person CASCADE;
