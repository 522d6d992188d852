import type { Table } from './table'

export const noteTable: Table<'note'> = {
  kind: 'note',
  select: `SELECT id, text, joined_into AS "joinedInto", trashed FROM note WHERE collection = $1`,
  upsert: `
    INSERT INTO note (collection, id, text, joined_into, trashed)
    SELECT $1, r.id, r.text, r."joinedInto", r.trashed
    FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, text text, "joinedInto" uuid, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET
      text = excluded.text, joined_into = excluded.joined_into, trashed = excluded.trashed`,
  columns: { joinedInto: 'joined_into' },
}
