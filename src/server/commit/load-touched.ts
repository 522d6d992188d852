import type { Edit } from '../../core/changes/edit'
import type { RecordKind } from '../../core/records/kinds'
import { Records } from '../../core/records/records'
import type { Client } from '../database'
import { loadInto } from '../records/tables'

type Wanted = Map<RecordKind, Set<string>>

/** What a browser sends may be anything until it is prepared; only what can be an id is asked for. */
const isId = <Id extends string>(id: Id | unknown): id is Id =>
  typeof id === 'string' && /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(id)

const want = (wanted: Wanted, kind: RecordKind, id: unknown) => {
  if (!isId<string>(id)) return
  const ids = wanted.get(kind)
  if (ids) ids.add(id)
  else wanted.set(kind, new Set([id]))
}

/** What an edit touches and what its new values refer to. */
function wantReferences(wanted: Wanted, { kind, id, after }: Edit): void {
  want(wanted, kind, id)
  const fields = after as Record<string, unknown>
  const place = (fields.place ?? {}) as Record<string, unknown>
  want(wanted, 'map', place.map)
  want(wanted, 'topic', place.parent)
  want(wanted, 'note', fields.note)
  want(wanted, 'map', fields.opensMap)
  want(wanted, 'map', fields.homeMap)
  want(wanted, 'topic', fields.homeDoorway)
  want(wanted, 'topic', fields.from)
  want(wanted, 'topic', fields.toTopic)
  want(wanted, 'map', fields.toMap)
  want(wanted, 'enclosure', fields.toEnclosure)
  want(wanted, 'topic', fields.topic)
  want(wanted, 'file', fields.file)
  const picture = (fields.picture ?? {}) as Record<string, unknown>
  want(wanted, 'file', picture.file)
  const look = (fields.look ?? {}) as Record<string, unknown>
  const background = (look.background ?? {}) as Record<string, unknown>
  want(wanted, 'file', background.picture)
  if (Array.isArray(fields.tags)) for (const tag of fields.tags) want(wanted, 'tag', tag)
  if (Array.isArray(fields.topics)) for (const topic of fields.topics) want(wanted, 'topic', topic)
}

/** Whether an edit can move known topics, or open and close doorways: then more of the surroundings is needed. */
const isStructural = (edit: Edit) =>
  edit.kind === 'map' ||
  (edit.kind === 'topic' &&
    edit.before !== null &&
    ('place' in edit.after || 'opensMap' in edit.after || 'trashed' in edit.after))

/** Topics by their ids, all above them, and siblings that have a rank which an edit wants, with the next after each. */
// An array, unlike a joined set, is looked up by index whatever the planner thinks of its size.
const TOPICS_AROUND = `AND id = ANY(ARRAY(
  WITH RECURSIVE above(id, parent) AS (
    SELECT t.id, t.parent FROM topic t WHERE t.collection = $1 AND t.id = ANY($2)
    UNION SELECT t.id, t.parent FROM above JOIN topic t ON t.collection = $1 AND t.id = above.parent
  )
  SELECT above.id FROM above UNION ALL
  SELECT near.id FROM unnest($3::uuid[], $4::text[]) AS wish(parent, rank) CROSS JOIN LATERAL (
    SELECT t.id FROM topic t WHERE t.collection = $1 AND t.parent = wish.parent AND t.rank >= wish.rank COLLATE "C"
    ORDER BY t.rank LIMIT 2) AS near))`

/** Maps by their ids, and those on which topics stand. */
const MAPS_AROUND =
  'SELECT unnest($2::uuid[]) UNION SELECT t.map FROM topic t WHERE t.collection = $1 AND t.id = ANY($3)'

/**
 * Loads the records that preparing these edits will look at: those they touch and name, parents above them,
 * neighbours in rank, heads of the maps, what moves along with a branch, and the home doorways on the way up.
 * What does not move or open anything takes one round trip.
 */
export async function loadTouched(client: Client, collection: string, edits: readonly Edit[]): Promise<Records> {
  const records = new Records()
  const wanted: Wanted = new Map()
  for (const edit of edits) wantReferences(wanted, edit)
  const topics = [...(wanted.get('topic') ?? [])]
  const loadMaps = (maps: readonly string[]) => [
    loadInto(records, client, 'map', collection, `AND id = ANY(ARRAY(${MAPS_AROUND}))`, [maps, topics]),
    loadInto(records, client, 'topic', collection, `AND parent IS NULL AND map = ANY(ARRAY(${MAPS_AROUND}))`, [
      maps,
      topics,
    ]),
  ]
  const { parents, ranks } = wishes(edits)
  await Promise.all([
    ...[...wanted]
      .filter(([kind]) => kind !== 'topic' && kind !== 'map')
      .map(([kind, ids]) => loadInto(records, client, kind, collection, 'AND id = ANY($2)', [[...ids]])),
    loadInto(records, client, 'topic', collection, TOPICS_AROUND, [topics, parents, ranks]),
    ...loadMaps([...(wanted.get('map') ?? [])]),
  ])
  const structural = edits.filter(isStructural)
  if (structural.length === 0) return records
  await loadBelow(client, collection, records, structural)
  for (const topic of records.all('topic')) want(wanted, 'map', topic.place.map)
  await loadHomeDoorways(client, collection, records, wanted)
  await Promise.all(loadMaps([...(wanted.get('map') ?? [])]))
  return records
}

/** The ranks that edits want, each below its parent. */
function wishes(edits: readonly Edit[]): { parents: string[]; ranks: string[] } {
  const parents: string[] = []
  const ranks: string[] = []
  for (const edit of edits) {
    const place = edit.kind === 'topic' ? edit.after.place : undefined
    if (!isId(place?.parent) || typeof place?.rank !== 'string') continue
    parents.push(place.parent)
    ranks.push(place.rank)
  }
  return { parents, ranks }
}

/** Everything below topics that are about to move or to go, trashed topics included. */
async function loadBelow(client: Client, collection: string, records: Records, edits: readonly Edit[]): Promise<void> {
  const heads = edits.flatMap((edit) => (edit.kind === 'topic' && 'place' in edit.after ? edit.id : []))
  if (heads.length === 0) return
  const below = `AND id = ANY(ARRAY(
    WITH RECURSIVE below(id, map) AS (
      SELECT t.id, t.map FROM topic t WHERE t.collection = $1 AND t.id = ANY($2)
      UNION SELECT t.id, t.map FROM below JOIN topic t ON t.collection = $1 AND t.map = below.map AND t.parent = below.id
    ) SELECT id FROM below))`
  await loadInto(records, client, 'topic', collection, below, [heads])
}

/** The maps that arrive by any loaded topic, and the way up from them and from the wanted maps. */
async function loadHomeDoorways(client: Client, collection: string, records: Records, wanted: Wanted): Promise<void> {
  const topics = [...records.all('topic')].map((topic) => topic.id)
  const up = `AND id = ANY(ARRAY(
    WITH RECURSIVE up(id, home_doorway) AS (
      SELECT m.id, m.home_doorway FROM map m WHERE m.collection = $1 AND (m.id = ANY($2) OR m.home_doorway = ANY($3))
      UNION SELECT m.id, m.home_doorway FROM up
        JOIN topic t ON t.collection = $1 AND t.id = up.home_doorway
        JOIN map m ON m.collection = $1 AND m.id = t.map
    ) SELECT id FROM up))`
  const maps = await loadInto(records, client, 'map', collection, up, [[...(wanted.get('map') ?? [])], topics])
  // A doorway may be about to lead up from a map that lay elsewhere until now.
  const doorways = maps.flatMap((map) => map.homeDoorway ?? [])
  await loadInto(records, client, 'topic', collection, 'AND id = ANY($2)', [doorways])
}
