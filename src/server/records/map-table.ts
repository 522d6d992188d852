import { BACKGROUND_PICTURE, type Table } from './table'

export const mapTable: Table<'map'> = {
  kind: 'map',
  select: `
    SELECT id, title, home_doorway AS "homeDoorway", layout, spacing, numbering, look, folder, in_atlas AS "inAtlas", trashed FROM map WHERE collection = $1`,
  upsert: `
    INSERT INTO map (collection, id, title, home_doorway, layout, spacing, numbering, look, folder, in_atlas, trashed)
    SELECT $1, r.id, r.title, r."homeDoorway", r.layout, r.spacing, r.numbering, r.look, r.folder, r."inAtlas", r.trashed
    FROM jsonb_to_recordset($2::jsonb)
      AS r(id uuid, title text, "homeDoorway" uuid, layout text, spacing float8, numbering text, look jsonb,
           folder uuid, "inAtlas" jsonb, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET
      title = excluded.title, home_doorway = excluded.home_doorway, layout = excluded.layout,
      spacing = excluded.spacing, numbering = excluded.numbering, look = excluded.look,
      folder = excluded.folder, in_atlas = excluded.in_atlas, trashed = excluded.trashed`,
  columns: { homeDoorway: 'home_doorway', folder: 'folder', 'look.background.picture': BACKGROUND_PICTURE },
}
