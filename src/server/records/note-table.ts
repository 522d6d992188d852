import type { Table } from './table'

export const noteTable: Table<'note'> = {
  kind: 'note',
  select: `SELECT id, text, trashed FROM note WHERE collection = $1`,
  upsert: `
    INSERT INTO note (collection, id, text, trashed)
    SELECT $1, r.id, r.text, r.trashed FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, text text, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET text = excluded.text, trashed = excluded.trashed`,
}
