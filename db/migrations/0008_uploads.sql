-- Up Migration

-- Since when content is there, or when it was last uploaded again: what nobody names is removed some time after that.
ALTER TABLE content ADD COLUMN stored_at timestamptz NOT NULL DEFAULT now();
CREATE INDEX content_stored_at ON content (stored_at);
CREATE INDEX file_content ON file (sha256);
CREATE INDEX publication_page_content ON publication_page (content) WHERE content IS NOT NULL;

-- Down Migration

DROP INDEX publication_page_content;
DROP INDEX file_content;
ALTER TABLE content DROP COLUMN stored_at;
