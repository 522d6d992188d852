import type { Table } from './table'

export const folderTable: Table<'folder'> = {
  kind: 'folder',
  select: `SELECT id, title, parent, trashed FROM folder WHERE collection = $1`,
  upsert: `
    INSERT INTO folder (collection, id, title, parent, trashed)
    SELECT $1, r.id, r.title, r.parent, r.trashed
    FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, title text, parent uuid, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET title = excluded.title, parent = excluded.parent, trashed = excluded.trashed`,
  columns: { parent: 'parent' },
}
