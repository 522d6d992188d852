import type { Table } from './table'

export const lookTable: Table<'look'> = {
  kind: 'look',
  select: `SELECT id, name, look, trashed FROM look WHERE collection = $1`,
  upsert: `
    INSERT INTO look (collection, id, name, look, trashed)
    SELECT $1, r.id, r.name, r.look, r.trashed
    FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, name text, look jsonb, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET name = excluded.name, look = excluded.look, trashed = excluded.trashed`,
  columns: {},
}
