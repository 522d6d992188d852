import type { Table } from './table'

export const searchTable: Table<'search'> = {
  kind: 'search',
  select: 'SELECT id, name, asked, trashed FROM search WHERE collection = $1',
  upsert: `
    INSERT INTO search (collection, id, name, asked, trashed)
    SELECT $1, r.id, r.name, r.asked, r.trashed
    FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, name text, asked jsonb, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET name = excluded.name, asked = excluded.asked, trashed = excluded.trashed`,
  columns: { 'asked.tag': "(asked->>'tag')::uuid", 'asked.map': "(asked->>'map')::uuid" },
}
