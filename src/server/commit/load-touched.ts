import type { Edit } from '../../core/changes/edit'
import type { RecordKind } from '../../core/records/kinds'
import { Records } from '../../core/records/records'
import type { Client } from '../database'
import { loadInto } from '../records/tables'

type Wanted = Map<RecordKind, Set<string>>

const want = (wanted: Wanted, kind: RecordKind, id: unknown) => {
  if (typeof id !== 'string' || !/^[0-9a-f-]{36}$/i.test(id)) return
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
  want(wanted, 'topic', fields.topic)
  want(wanted, 'file', fields.file)
}

/** Whether an edit can move known topics, or open and close doorways: then more of the surroundings is needed. */
const isStructural = (edit: Edit) =>
  edit.kind === 'map' ||
  (edit.kind === 'topic' &&
    edit.before !== null &&
    ('place' in edit.after || 'opensMap' in edit.after || 'trashed' in edit.after))

/**
 * Loads the records that preparing these edits will look at: those they touch and name, parents above them,
 * neighbours in rank, heads of the maps, what moves along with a branch, and the home doorways on the way up.
 */
export async function loadTouched(client: Client, collection: string, edits: readonly Edit[]): Promise<Records> {
  const records = new Records()
  const wanted: Wanted = new Map()
  for (const edit of edits) wantReferences(wanted, edit)
  for (const [kind, ids] of wanted)
    if (kind !== 'map') await loadInto(records, client, kind, collection, 'AND id = ANY($2)', [[...ids]])
  await loadAncestors(client, collection, records)
  await loadNeighbours(client, collection, records, edits)
  const structural = edits.filter(isStructural)
  if (structural.length > 0) await loadBelow(client, collection, records, structural)
  for (const topic of records.all('topic')) want(wanted, 'map', topic.place.map)
  if (structural.length > 0) await loadHomeDoorways(client, collection, records, wanted)
  const maps = [...(wanted.get('map') ?? [])]
  await loadInto(records, client, 'map', collection, 'AND id = ANY($2)', [maps])
  await loadInto(records, client, 'topic', collection, 'AND map = ANY($2) AND parent IS NULL', [maps])
  return records
}

async function loadAncestors(client: Client, collection: string, records: Records): Promise<void> {
  const parents = [...records.all('topic')].flatMap((topic) => topic.place.parent ?? [])
  const missing = parents.filter((id) => !records.get('topic', id))
  if (missing.length === 0) return
  const ids = `AND id IN (
    WITH RECURSIVE above(id, parent) AS (
      SELECT t.id, t.parent FROM topic t WHERE t.collection = $1 AND t.id = ANY($2)
      UNION SELECT t.id, t.parent FROM above JOIN topic t ON t.collection = $1 AND t.id = above.parent
    ) SELECT id FROM above)`
  await loadInto(records, client, 'topic', collection, ids, [missing])
}

/** Siblings that have a rank which an edit wants, and the next after each. */
async function loadNeighbours(
  client: Client,
  collection: string,
  records: Records,
  edits: readonly Edit[],
): Promise<void> {
  const parents: string[] = []
  const ranks: string[] = []
  for (const edit of edits) {
    const place = edit.kind === 'topic' ? edit.after.place : undefined
    if (!place?.parent || typeof place.rank !== 'string' || !records.get('topic', place.parent)) continue
    parents.push(place.parent)
    ranks.push(place.rank)
  }
  if (parents.length === 0) return
  const near = `AND id IN (
    SELECT near.id FROM unnest($2::uuid[], $3::text[]) AS wish(parent, rank) CROSS JOIN LATERAL (
      SELECT t.id FROM topic t WHERE t.collection = $1 AND t.parent = wish.parent AND t.rank >= wish.rank COLLATE "C"
      ORDER BY t.rank LIMIT 2) AS near)`
  await loadInto(records, client, 'topic', collection, near, [parents, ranks])
}

/** Everything below topics that are about to move or to go, trashed topics included. */
async function loadBelow(client: Client, collection: string, records: Records, edits: readonly Edit[]): Promise<void> {
  const heads = edits.flatMap((edit) => (edit.kind === 'topic' && 'place' in edit.after ? edit.id : []))
  if (heads.length === 0) return
  const below = `AND id IN (
    WITH RECURSIVE below(id, map) AS (
      SELECT t.id, t.map FROM topic t WHERE t.collection = $1 AND t.id = ANY($2)
      UNION SELECT t.id, t.map FROM below JOIN topic t ON t.collection = $1 AND t.map = below.map AND t.parent = below.id
    ) SELECT id FROM below)`
  await loadInto(records, client, 'topic', collection, below, [heads])
}

/** The maps that arrive by any loaded topic, and the way up from them and from the wanted maps. */
async function loadHomeDoorways(client: Client, collection: string, records: Records, wanted: Wanted): Promise<void> {
  const topics = [...records.all('topic')].map((topic) => topic.id)
  const up = `AND id IN (
    WITH RECURSIVE up(id, home_doorway) AS (
      SELECT m.id, m.home_doorway FROM map m WHERE m.collection = $1 AND (m.id = ANY($2) OR m.home_doorway = ANY($3))
      UNION SELECT m.id, m.home_doorway FROM up
        JOIN topic t ON t.collection = $1 AND t.id = up.home_doorway
        JOIN map m ON m.collection = $1 AND m.id = t.map
    ) SELECT id FROM up)`
  const maps = await loadInto(records, client, 'map', collection, up, [[...(wanted.get('map') ?? [])], topics])
  // A doorway may be about to lead up from a map that lay elsewhere until now.
  const doorways = maps.flatMap((map) => map.homeDoorway ?? [])
  await loadInto(records, client, 'topic', collection, 'AND id = ANY($2)', [doorways])
}
