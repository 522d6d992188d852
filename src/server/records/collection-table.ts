import { BACKGROUND_PICTURE, type Table } from './table'

/** Collections are made by `createCollection`; a change only alters the one that it belongs to. */
export const collectionTable: Table<'collection'> = {
  kind: 'collection',
  select: `SELECT id, title, home_map AS "homeMap", look, limits, trashed FROM collection WHERE id = $1`,
  upsert: `
    UPDATE collection SET title = r.title, home_map = r."homeMap", look = r.look, limits = r.limits, trashed = r.trashed
    FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, title text, "homeMap" uuid, look jsonb, limits jsonb, trashed boolean)
    WHERE collection.id = $1 AND r.id = $1`,
  columns: { homeMap: 'home_map', 'look.background.picture': BACKGROUND_PICTURE },
}
