import type { Table } from './table'

export const topicTable: Table<'topic'> = {
  kind: 'topic',
  select: `
    SELECT id,
           CASE place
             WHEN 'root' THEN json_build_object('kind', place, 'map', map)
             WHEN 'to place' THEN json_build_object('kind', place, 'map', map)
             WHEN 'arranged' THEN
               json_build_object('kind', place, 'map', map, 'parent', parent, 'rank', rank, 'side', side)
             WHEN 'by hand' THEN
               json_build_object('kind', place, 'map', map, 'parent', parent, 'rank', rank, 'side', side, 'x', x, 'y', y)
             ELSE json_build_object('kind', place, 'map', map, 'x', x, 'y', y) END AS place,
           text, note, opens_map AS "opensMap", folded, layout, width, numbering, number, dates,
           look, branch_look AS "branchLook", picture, badges, tags, held, free, task, work, apart, gathers, copy_of AS "copyOf", trashed
    FROM topic WHERE collection = $1`,
  upsert: `
    INSERT INTO topic (collection, id, place, map, parent, rank, side, x, y, text, note, opens_map, folded,
                       layout, width, numbering, number, dates,
                       look, branch_look, picture, badges, tags, held, free, task, work, apart, gathers, copy_of, trashed)
    SELECT $1, r.id, r.place->>'kind', (r.place->>'map')::uuid, (r.place->>'parent')::uuid, r.place->>'rank', r.place->>'side',
           (r.place->>'x')::float8, (r.place->>'y')::float8, r.text, r.note, r."opensMap", r.folded,
           r.layout, r.width, r.numbering, r.number, r.dates,
           r.look, r."branchLook", r.picture, r.badges, r.tags, r.held, COALESCE(r.free, false), r.task, r.work, COALESCE(r.apart, '{}'), r.gathers, r."copyOf", r.trashed
    FROM jsonb_to_recordset($2::jsonb)
      AS r(id uuid, place jsonb, text text, note uuid, "opensMap" uuid, folded boolean, layout text, width float8,
           numbering text, number text, dates jsonb, look jsonb, "branchLook" jsonb, picture jsonb, badges text[], tags uuid[],
           held boolean, free boolean, task text, work jsonb, apart uuid[], gathers jsonb, "copyOf" jsonb, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET
      place = excluded.place, map = excluded.map, parent = excluded.parent, rank = excluded.rank, side = excluded.side,
      x = excluded.x, y = excluded.y, text = excluded.text, note = excluded.note,
      opens_map = excluded.opens_map, folded = excluded.folded, layout = excluded.layout, width = excluded.width,
      numbering = excluded.numbering, number = excluded.number, dates = excluded.dates,
      look = excluded.look, branch_look = excluded.branch_look, picture = excluded.picture, badges = excluded.badges,
      tags = excluded.tags, held = excluded.held, free = excluded.free, task = excluded.task, work = excluded.work,
      apart = excluded.apart, gathers = excluded.gathers, copy_of = excluded.copy_of, trashed = excluded.trashed`,
  columns: {
    'place.map': 'map',
    'place.parent': 'parent',
    note: 'note',
    opensMap: 'opens_map',
    'picture.file': "(picture->>'file')::uuid",
    'tags.*': { each: 'tags' },
    'gathers.tag': "(gathers->>'tag')::uuid",
    'gathers.map': "(gathers->>'map')::uuid",
  },
}
