import type { Table } from './table'

export const crosslinkTable: Table<'crosslink'> = {
  kind: 'crosslink',
  select: `
    SELECT id, from_topic AS "from", to_topic AS "toTopic", to_map AS "toMap",
      to_enclosure AS "toEnclosure", label, drawn, trashed
    FROM crosslink WHERE collection = $1`,
  upsert: `
    INSERT INTO crosslink (collection, id, from_topic, to_topic, to_map, to_enclosure, label, drawn, trashed)
    SELECT $1, r.id, r."from", r."toTopic", r."toMap", r."toEnclosure", r.label, r.drawn, r.trashed
    FROM jsonb_to_recordset($2::jsonb)
      AS r(id uuid, "from" uuid, "toTopic" uuid, "toMap" uuid, "toEnclosure" uuid, label text, drawn text, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET
      from_topic = excluded.from_topic, to_topic = excluded.to_topic, to_map = excluded.to_map,
      to_enclosure = excluded.to_enclosure,
      label = excluded.label, drawn = excluded.drawn, trashed = excluded.trashed`,
}
