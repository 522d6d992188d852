import type { Table } from './table'

export const weblinkTable: Table<'weblink'> = {
  kind: 'weblink',
  select: `SELECT id, topic, url, title, rank, read, trashed FROM weblink WHERE collection = $1`,
  upsert: `
    INSERT INTO weblink (collection, id, topic, url, title, rank, read, trashed)
    SELECT $1, r.id, r.topic, r.url, r.title, r.rank, COALESCE(r.read, false), r.trashed
    FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, topic uuid, url text, title text, rank text, read boolean, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET
      topic = excluded.topic, url = excluded.url, title = excluded.title, rank = excluded.rank,
      read = excluded.read, trashed = excluded.trashed`,
  columns: { topic: 'topic' },
}
