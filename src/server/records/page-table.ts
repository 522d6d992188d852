import type { Table } from './table'

export const pageTable: Table<'page'> = {
  kind: 'page',
  select: 'SELECT id, map, path, text, topics, trashed FROM page WHERE collection = $1',
  upsert: `
    INSERT INTO page (collection, id, map, path, text, topics, trashed)
    SELECT $1, r.id, r.map, r.path, r.text, r.topics, r.trashed
    FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, map uuid, path text, text text, topics uuid[], trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET
      map = excluded.map, path = excluded.path, text = excluded.text, topics = excluded.topics, trashed = excluded.trashed`,
  columns: { map: 'map' },
}
