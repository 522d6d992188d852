-- Up Migration

-- Whether a cross-link leads both ways.
ALTER TABLE crosslink ADD COLUMN both_ways boolean NOT NULL DEFAULT false;

-- History tells of links in the new form too.
UPDATE change SET edits = (
  SELECT jsonb_agg(
    CASE WHEN e.edit->>'kind' = 'crosslink' AND e.edit->'after' ? 'id'
      THEN jsonb_set(e.edit, '{after,bothWays}', 'false') ELSE e.edit END ORDER BY e.at)
  FROM jsonb_array_elements(change.edits) WITH ORDINALITY AS e(edit, at)
)
WHERE edits @? '$[*] ? (@.kind == "crosslink")';

-- Down Migration

ALTER TABLE crosslink DROP COLUMN both_ways;
