import type { Table } from './table'

export const crosslinkTable: Table<'crosslink'> = {
  kind: 'crosslink',
  select: `
    SELECT id, from_topic AS "from",
      CASE WHEN to_topic IS NOT NULL THEN json_build_object('kind', 'topic', 'id', to_topic)
           WHEN to_enclosure IS NOT NULL THEN json_build_object('kind', 'enclosure', 'id', to_enclosure)
           WHEN to_map IS NOT NULL THEN json_build_object('kind', 'map', 'id', to_map)
           ELSE json_build_object('kind', 'note', 'id', to_note) END AS "to",
      label, drawn, both_ways AS "bothWays", bend, trashed
    FROM crosslink WHERE collection = $1`,
  upsert: `
    INSERT INTO crosslink (collection, id, from_topic, to_topic, to_enclosure, to_map, to_note, label, drawn, both_ways, bend, trashed)
    SELECT $1, r.id, r."from",
      CASE r."to"->>'kind' WHEN 'topic' THEN (r."to"->>'id')::uuid END,
      CASE r."to"->>'kind' WHEN 'enclosure' THEN (r."to"->>'id')::uuid END,
      CASE r."to"->>'kind' WHEN 'map' THEN (r."to"->>'id')::uuid END,
      CASE r."to"->>'kind' WHEN 'note' THEN (r."to"->>'id')::uuid END,
      r.label, r.drawn, COALESCE(r."bothWays", false), r.bend, r.trashed
    FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, "from" uuid, "to" jsonb, label text, drawn text, "bothWays" boolean, bend jsonb, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET
      from_topic = excluded.from_topic, to_topic = excluded.to_topic, to_enclosure = excluded.to_enclosure,
      to_map = excluded.to_map, to_note = excluded.to_note, label = excluded.label, drawn = excluded.drawn, both_ways = excluded.both_ways,
      bend = excluded.bend, trashed = excluded.trashed`,
  columns: {
    from: 'from_topic',
    bothWays: 'both_ways',
    to: { topic: 'to_topic', enclosure: 'to_enclosure', map: 'to_map', note: 'to_note' },
  },
}
