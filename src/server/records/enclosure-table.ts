import type { Table } from './table'

export const enclosureTable: Table<'enclosure'> = {
  kind: 'enclosure',
  select: `SELECT id, topics, title, note, tone, look, trashed FROM enclosure WHERE collection = $1`,
  upsert: `
    INSERT INTO enclosure (collection, id, topics, title, note, tone, look, trashed)
    SELECT $1, r.id, r.topics, r.title, r.note, r.tone, r.look, r.trashed
    FROM jsonb_to_recordset($2::jsonb)
      AS r(id uuid, topics uuid[], title text, note text, tone integer, look jsonb, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET
      topics = excluded.topics, title = excluded.title, note = excluded.note, tone = excluded.tone,
      look = excluded.look, trashed = excluded.trashed`,
  columns: { 'topics.*': { each: 'topics' } },
}
