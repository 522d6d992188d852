-- Up Migration

-- The ids to which a note leads, so that what is led to can tell from where.
CREATE FUNCTION note_links(note text) RETURNS uuid[] LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
  SELECT CASE WHEN position('folvet:' IN note) = 0 THEN '{}'::uuid[] ELSE COALESCE(
    (SELECT array_agg(DISTINCT found[1]::uuid) FROM
       regexp_matches(note, 'folvet:(?:topic|map|file)/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})', 'g') AS found),
    '{}') END
$$;
ALTER TABLE note ADD COLUMN links uuid[] GENERATED ALWAYS AS (note_links(text)) STORED;
CREATE INDEX note_links_to ON note USING gin (links) WHERE links <> '{}';

-- Web links with the same address, wherever they stand.
CREATE INDEX weblink_url ON weblink USING hash (url);

-- Down Migration

DROP INDEX weblink_url;
ALTER TABLE note DROP COLUMN links;
DROP FUNCTION note_links;
