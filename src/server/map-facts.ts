import { onlyMaps } from '../core/rights/grant'
import { prepared, snapshot } from './database'
import type { Member } from './http/endpoint'

/** What is known of a map besides its digest row: what a list of maps tells, and nothing that is drawn or computed. */
export interface MapFacts {
  map: string
  files: number
  /** When it was last changed; null where that is longer ago than what is looked at. */
  changedAt: string | null
  /** Whether it is on the site as that is now. */
  published: boolean
}

/** Of the last changes so many are looked at for when each map was changed. */
const LOOKED_AT = 20_000

const FACTS = `
  WITH hung AS (
    SELECT t.map, count(*)::int AS files FROM attachment a
    JOIN topic t ON t.collection = $1 AND t.id = a.topic AND NOT t.trashed
    WHERE a.collection = $1 AND NOT a.trashed GROUP BY t.map
  ), lately AS MATERIALIZED (
    SELECT at, maps FROM change WHERE collection = $1 ORDER BY number DESC LIMIT ${LOOKED_AT}
  ), last AS (
    SELECT map, max(at) AS at FROM lately CROSS JOIN LATERAL unnest(maps) AS map GROUP BY map
  ), everywhere AS (
    SELECT max(at) AS at FROM lately WHERE maps IS NULL
  ), site AS (
    SELECT maps, change_number FROM publication WHERE collection = $1 AND change_number > 0
  ), since AS (
    SELECT (e->>'id')::uuid AS map
    FROM (SELECT edits FROM change WHERE collection = $1 AND number > (SELECT change_number FROM site)
          ORDER BY number DESC LIMIT ${LOOKED_AT}) c
    CROSS JOIN LATERAL jsonb_array_elements(c.edits) e
    WHERE e->>'kind' = 'map' AND jsonb_typeof(e->'before') = 'null'
  )
  SELECT m.id AS map, COALESCE(hung.files, 0) AS files, GREATEST(last.at, everywhere.at) AS "changedAt",
         EXISTS (SELECT FROM site WHERE (site.maps IS NULL OR m.id = ANY(site.maps)) AND m.id NOT IN (SELECT map FROM since)) AS published
  FROM map m CROSS JOIN everywhere LEFT JOIN hung ON hung.map = m.id LEFT JOIN last ON last.map = m.id
  WHERE m.collection = $1 AND NOT m.trashed AND ($2::uuid[] IS NULL OR m.id = ANY($2))`

/** The facts of each map that is open to somebody, in no order. O(maps + attachments + changes that are looked at). */
export async function mapFacts({ collection, reach }: Member): Promise<MapFacts[]> {
  const given = [collection, onlyMaps(reach)]
  return (await snapshot((client) => prepared<MapFacts>(client, FACTS, given))).rows
}
