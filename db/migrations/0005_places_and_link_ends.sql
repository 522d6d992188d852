-- Up Migration

-- Places and link ends as the unions that they are: what cannot be, cannot be written. Notes that another one took over.

SET CONSTRAINTS ALL IMMEDIATE;

ALTER TABLE topic ALTER COLUMN rank DROP NOT NULL, ADD COLUMN place text;
UPDATE topic SET
  place = CASE WHEN parent IS NULL AND x IS NULL THEN 'root' WHEN parent IS NULL THEN 'loose'
               WHEN x IS NULL THEN 'arranged' ELSE 'by hand' END,
  rank = CASE WHEN parent IS NOT NULL THEN rank END,
  side = CASE WHEN parent IS NOT NULL THEN side END;
SET CONSTRAINTS ALL IMMEDIATE;
ALTER TABLE topic
  ALTER COLUMN place SET NOT NULL,
  ADD CONSTRAINT topic_place CHECK (CASE place
    WHEN 'root' THEN num_nonnulls(parent, rank, side, x, y) = 0
    WHEN 'arranged' THEN num_nonnulls(parent, rank) = 2 AND num_nonnulls(x, y) = 0
    WHEN 'by hand' THEN num_nonnulls(parent, rank, x, y) = 4
    WHEN 'loose' THEN num_nonnulls(parent, rank, side) = 0 AND num_nonnulls(x, y) = 2
    ELSE false END);

ALTER TABLE crosslink
  DROP CONSTRAINT crosslink_check,
  DROP CONSTRAINT crosslink_check1,
  ADD COLUMN to_note uuid,
  ADD FOREIGN KEY (collection, to_note) REFERENCES note (collection, id) DEFERRABLE INITIALLY DEFERRED;
UPDATE crosslink SET to_topic = NULL WHERE to_enclosure IS NOT NULL;
SET CONSTRAINTS ALL IMMEDIATE;
ALTER TABLE crosslink
  ADD CONSTRAINT crosslink_end CHECK (num_nonnulls(to_topic, to_enclosure, to_map, to_note) = 1);
CREATE INDEX crosslink_to_note ON crosslink (collection, to_note) WHERE to_note IS NOT NULL;

ALTER TABLE note
  ADD COLUMN joined_into uuid,
  ADD FOREIGN KEY (collection, joined_into) REFERENCES note (collection, id) DEFERRABLE INITIALLY DEFERRED;

-- Names of files are what they show: no paths, no line breaks, nothing that turns the direction of what follows.
UPDATE file SET name = COALESCE(NULLIF(btrim(left(
    regexp_replace(regexp_replace(name, '^.*[/\\]', ''), '[\u0001-\u001f\u007f-\u009f\u2028\u2029\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]', '', 'g'),
    200)), ''), 'file')
  WHERE name ~ '[/\\\u0001-\u001f\u007f-\u009f\u2028\u2029\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]' OR name <> btrim(name);
UPDATE file SET name = 'file' WHERE name IN ('.', '..');

-- What history tells is told in the new form too: undo and earlier states read it.

CREATE FUNCTION pg_temp.place(p jsonb) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
  SELECT CASE
    WHEN p ? 'kind' THEN p
    WHEN p->>'parent' IS NULL AND p->>'x' IS NULL THEN jsonb_build_object('kind', 'root', 'map', p->'map')
    WHEN p->>'parent' IS NULL THEN jsonb_build_object('kind', 'loose', 'map', p->'map', 'x', p->'x', 'y', p->'y')
    WHEN p->>'x' IS NULL THEN
      jsonb_build_object('kind', 'arranged', 'map', p->'map', 'parent', p->'parent', 'rank', p->'rank', 'side', p->'side')
    ELSE (p - 'kind') || jsonb_build_object('kind', 'by hand') END
$$;

-- The end of a link as far as fields tell it; null where they only named another topic inside the same enclosure.
CREATE FUNCTION pg_temp.link_end(f jsonb, leads_to_enclosure boolean) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
  SELECT CASE
    WHEN f->>'toEnclosure' IS NOT NULL THEN jsonb_build_object('kind', 'enclosure', 'id', f->'toEnclosure')
    WHEN leads_to_enclosure AND NOT f ? 'toEnclosure' THEN NULL
    WHEN f->>'toTopic' IS NOT NULL THEN jsonb_build_object('kind', 'topic', 'id', f->'toTopic')
    WHEN f->>'toMap' IS NOT NULL THEN jsonb_build_object('kind', 'map', 'id', f->'toMap') END
$$;

CREATE FUNCTION pg_temp.fields(kind text, f jsonb, leads_to_enclosure boolean) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
  SELECT CASE
    WHEN f IS NULL OR jsonb_typeof(f) = 'null' THEN 'null'::jsonb
    WHEN kind = 'topic' AND f ? 'place' THEN f || jsonb_build_object('place', pg_temp.place(f->'place'))
    WHEN kind = 'crosslink' THEN (f - 'toTopic' - 'toMap' - 'toEnclosure')
      || CASE WHEN pg_temp.link_end(f, leads_to_enclosure) IS NULL THEN '{}'
              ELSE jsonb_build_object('to', pg_temp.link_end(f, leads_to_enclosure)) END
    WHEN kind = 'note' AND f ? 'id' THEN f || '{"joinedInto": null}'
    ELSE f END
$$;

UPDATE change SET edits = (
  SELECT COALESCE(jsonb_agg(told.edit ORDER BY told.at), '[]')
  FROM (
    SELECT e.at, e.edit || jsonb_build_object(
      'before', pg_temp.fields(e.edit->>'kind', e.edit->'before', l.id IS NOT NULL),
      'after', pg_temp.fields(e.edit->>'kind', e.edit->'after', l.id IS NOT NULL)) AS edit
    FROM jsonb_array_elements(change.edits) WITH ORDINALITY AS e(edit, at)
    LEFT JOIN crosslink l ON e.edit->>'kind' = 'crosslink' AND l.collection = change.collection
      AND l.id = (e.edit->>'id')::uuid AND l.to_enclosure IS NOT NULL
  ) told
  WHERE told.edit->'after' <> '{}'
)
WHERE edits @? '$[*] ? (@.kind == "topic" || @.kind == "crosslink" || @.kind == "note")';

-- Down Migration

ALTER TABLE note DROP COLUMN joined_into;
DELETE FROM crosslink WHERE to_note IS NOT NULL;
ALTER TABLE crosslink DROP CONSTRAINT crosslink_end, DROP COLUMN to_note;
ALTER TABLE topic DROP CONSTRAINT topic_place, DROP COLUMN place;
