import type { Table } from './table'

export const templateTable: Table<'template'> = {
  kind: 'template',
  select: `SELECT id, name, layout, numbering, lines, trashed FROM template WHERE collection = $1`,
  upsert: `
    INSERT INTO template (collection, id, name, layout, numbering, lines, trashed)
    SELECT $1, r.id, r.name, r.layout, r.numbering, r.lines, r.trashed
    FROM jsonb_to_recordset($2::jsonb)
      AS r(id uuid, name text, layout text, numbering text, lines jsonb, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET
      name = excluded.name, layout = excluded.layout, numbering = excluded.numbering, lines = excluded.lines,
      trashed = excluded.trashed`,
  columns: {},
}
