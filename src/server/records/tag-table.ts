import type { Table } from './table'

export const tagTable: Table<'tag'> = {
  kind: 'tag',
  select: `SELECT id, name, tone, trashed FROM tag WHERE collection = $1`,
  upsert: `
    INSERT INTO tag (collection, id, name, tone, trashed)
    SELECT $1, r.id, r.name, r.tone, r.trashed
    FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, name text, tone integer, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET name = excluded.name, tone = excluded.tone, trashed = excluded.trashed`,
  columns: {},
}
