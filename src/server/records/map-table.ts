import type { Table } from './table'

export const mapTable: Table<'map'> = {
  kind: 'map',
  select: `SELECT id, title, home_doorway AS "homeDoorway", trashed FROM map WHERE collection = $1`,
  upsert: `
    INSERT INTO map (collection, id, title, home_doorway, trashed)
    SELECT $1, r.id, r.title, r."homeDoorway", r.trashed
    FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, title text, "homeDoorway" uuid, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET
      title = excluded.title, home_doorway = excluded.home_doorway, trashed = excluded.trashed`,
}
