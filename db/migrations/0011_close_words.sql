-- Up Migration

-- How close a word is to one in a text, for words that were mistyped. Comes with PostgreSQL, and may be made by who owns the database.
CREATE EXTENSION IF NOT EXISTS pg_trgm;

-- Down Migration

DROP EXTENSION pg_trgm;
