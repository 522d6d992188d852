import type { Table } from './table'

export const fileTable: Table<'file'> = {
  kind: 'file',
  select: `SELECT id, sha256, name, type, size, picture, trashed FROM file WHERE collection = $1`,
  upsert: `
    INSERT INTO file (collection, id, sha256, name, type, size, picture, trashed)
    SELECT $1, r.id, r.sha256, r.name, r.type, r.size, r.picture, r.trashed
    FROM jsonb_to_recordset($2::jsonb) 
      AS r(id uuid, sha256 text, name text, type text, size bigint, picture jsonb, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET name = excluded.name, trashed = excluded.trashed`,
  columns: {},
}
