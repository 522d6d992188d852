-- Up Migration

-- Indexes over a collection, a kind and words at once. Comes with PostgreSQL, and may be made by who owns the database.
CREATE EXTENSION IF NOT EXISTS btree_gin;

-- The words of what can be found, folded as they are looked for. Brought up to date by who searches; see src/server/search.
CREATE TABLE search_row (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  kind text NOT NULL,
  id uuid NOT NULL,
  words tsvector NOT NULL,
  PRIMARY KEY (collection, kind, id)
);
CREATE INDEX search_row_words ON search_row USING gin (collection, kind, words) WITH (fastupdate = off);

-- Each word of a collection once, for parts of words and words that were mistyped.
CREATE TABLE search_word (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  word text COLLATE "C" NOT NULL,
  PRIMARY KEY (collection, word)
);
CREATE INDEX search_word_trigrams ON search_word USING gin (collection, word gin_trgm_ops) WITH (fastupdate = off);

-- Up to which change a collection is in the index.
CREATE TABLE search_state (
  collection uuid PRIMARY KEY REFERENCES collection ON DELETE CASCADE,
  number bigint NOT NULL
);

-- Down Migration

DROP TABLE search_state, search_word, search_row;
DROP EXTENSION btree_gin;
