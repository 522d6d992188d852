import type { Edit } from '../../core/changes/edit'
import { kinds, RECORD_KINDS, type RecordKind, referencesTo } from '../../core/records/kinds'
import { hangs } from '../../core/records/place'
import { Records } from '../../core/records/records'
import { eachEnd } from '../../core/records/reference-path'
import { storable } from '../../core/records/text'
import type { Client } from '../database'
import { GIVEN, isRecordId, isTable, leadsTo, loadByIds, loadInto } from '../records/tables'

type Wanted = Map<RecordKind, Set<string>>

const want = (wanted: Wanted, kind: RecordKind, id: unknown) => {
  if (!isRecordId(id)) return
  const ids = wanted.get(kind)
  if (ids) ids.add(id)
  else wanted.set(kind, new Set([id]))
}

/** What an edit touches, and what its new values refer to as the references of its kind tell. */
function wantReferences(wanted: Wanted, { kind, id, after }: Edit): void {
  want(wanted, kind, id)
  for (const reference of kinds[kind].references)
    eachEnd(after, reference, (end) => {
      if (isTable(end.kind)) want(wanted, end.kind, end.id)
    })
}

/** Whether an edit can move known topics, or open and close doorways: then more of the surroundings is needed. */
const isStructural = (edit: Edit) =>
  edit.kind === 'map' ||
  (edit.kind === 'topic' &&
    edit.before !== null &&
    ('place' in edit.after || 'opensMap' in edit.after || 'trashed' in edit.after))

/** Whether others may show something of what an edit changes: what is linked with it, from maps that it does not stand on. */
const isShownElsewhere = ({ kind, before, after }: Edit) =>
  kind === 'enclosure' || kind === 'crosslink' || (before !== null && SHOWN.some((field) => field in after))
const SHOWN = ['text', 'title', 'place', 'trashed', 'note']

/** Topics by their ids, all above them, and siblings that have a rank which an edit wants, with the next after each. */
const TOPICS_AROUND = `
  WITH RECURSIVE above(id, parent) AS (
    SELECT t.id, t.parent FROM unnest($2::uuid[]) AS want(wanted)
      CROSS JOIN LATERAL (SELECT id, parent FROM topic WHERE collection = $1 AND id = wanted LIMIT 1) t
    UNION SELECT t.id, t.parent FROM above
      CROSS JOIN LATERAL (SELECT id, parent FROM topic WHERE collection = $1 AND id = above.parent LIMIT 1) t
  )
  SELECT above.id FROM above UNION
  SELECT near.id FROM unnest($3::uuid[], $4::text[]) AS wish(parent, rank) CROSS JOIN LATERAL (
    SELECT t.id FROM topic t WHERE t.collection = $1 AND t.parent = wish.parent AND t.rank >= wish.rank COLLATE "C"
    ORDER BY t.rank LIMIT 2) AS near`

/** Maps by their ids, and those on which topics stand. */
const MAPS_AROUND = `SELECT unnest($2::uuid[]) UNION
  SELECT t.map FROM unnest($3::uuid[]) AS want(wanted)
    CROSS JOIN LATERAL (SELECT map FROM topic WHERE collection = $1 AND id = wanted LIMIT 1) t`

/** The heads on a map: its root and its loose branches. */
const HEADS = 'map = wanted AND parent IS NULL OFFSET 0'

/** Notes by their ids, those that took them over, and those that topics carry. */
const NOTES_AROUND = `
  SELECT unnest($2::uuid[])
  UNION SELECT n.joined_into FROM unnest($2::uuid[]) AS want(wanted)
    CROSS JOIN LATERAL (SELECT joined_into FROM note WHERE collection = $1 AND id = wanted LIMIT 1) n
  UNION SELECT t.note FROM unnest($3::uuid[]) AS want(wanted)
    CROSS JOIN LATERAL (SELECT note FROM topic WHERE collection = $1 AND id = wanted LIMIT 1) t`

/**
 * Loads the records that preparing these edits will look at: those they touch and name, parents above them,
 * neighbours in rank, heads of the maps, what moves along with a branch, the home doorways on the way up, and what cannot
 * be without a record that is about to go. What does not move or open anything takes one round trip.
 */
export async function loadTouched(
  client: Client,
  collection: string,
  edits: readonly Edit[],
  trustsNew = true,
): Promise<Records> {
  const records = new Records()
  const wanted: Wanted = new Map()
  for (const edit of edits) wantReferences(wanted, edit)
  // Around what is new there is nothing yet; of it, only what has its id already is looked for.
  const made: Wanted = trustsNew ? takeOutNew(wanted, edits) : new Map()
  const topics = [...(wanted.get('topic') ?? [])]
  const loadMaps = (maps: readonly string[]) => [
    loadByIds(records, client, 'map', collection, MAPS_AROUND, [maps, topics]),
    loadByIds(records, client, 'topic', collection, MAPS_AROUND, [maps, topics], HEADS),
  ]
  const { parents, ranks } = wishes(edits, made.get('topic') ?? new Set())
  const noted = edits.flatMap((edit) =>
    edit.kind === 'topic' && edit.before !== null && 'note' in edit.after && isRecordId(edit.id) ? edit.id : [],
  )
  if (noted.length > 0 && !wanted.has('note')) wanted.set('note', new Set())
  await Promise.all([
    ...[...made].map(([kind, ids]) => loadByIds(records, client, kind, collection, GIVEN, [[...ids]])),
    ...[...wanted]
      .filter(([kind]) => kind !== 'topic' && kind !== 'map')
      .map(([kind, ids]) =>
        kind === 'note'
          ? loadByIds(records, client, kind, collection, NOTES_AROUND, [[...ids], noted])
          : loadByIds(records, client, kind, collection, GIVEN, [[...ids]]),
      ),
    ...loadDependants(client, collection, records, edits),
    loadByIds(records, client, 'topic', collection, TOPICS_AROUND, [topics, parents, ranks]),
    ...loadMaps([...(wanted.get('map') ?? [])]),
  ])
  // Somebody says that they make what is there: then what is around it counts for everything else they do with it.
  for (const [kind, ids] of made)
    for (const id of ids) if (records.get(kind, id)) return loadTouched(client, collection, edits, false)
  const structural = edits.filter(isStructural)
  if (structural.length > 0) await loadBelow(client, collection, records, structural)
  await loadWhereSeen(client, collection, records, edits)
  if (edits.some(isShownElsewhere)) await loadLinks(client, collection, records, edits)
  if (structural.length === 0) return records
  for (const topic of records.all('topic')) want(wanted, 'map', topic.place.map)
  await loadHomeDoorways(client, collection, records, wanted)
  await Promise.all(loadMaps([...(wanted.get('map') ?? [])]))
  return records
}

/** What cannot be without records that are about to go into the trash. */
function loadDependants(
  client: Client,
  collection: string,
  records: Records,
  edits: readonly Edit[],
): Promise<unknown>[] {
  const going: Wanted = new Map()
  for (const { kind, id, after } of edits) if (after.trashed === true) want(going, kind, id)
  return [...going].flatMap(([kind, ids]) =>
    referencesTo(kind)
      .filter(({ reference }) => reference.whenGone === 'refused')
      .map(({ from, reference }) =>
        loadInto(records, client, from, collection, `AND ${leadsTo(from, reference, kind, '$2')}`, [[...ids]]),
      ),
  )
}

/**
 * Where what edits alter is seen: the topics at which it is drawn, as it says itself, and those that carry it or show it, as
 * they say.
 */
async function loadWhereSeen(
  client: Client,
  collection: string,
  records: Records,
  edits: readonly Edit[],
): Promise<void> {
  const altered = edits.filter(({ kind, before }) => before !== null && !kinds[kind].seenEverywhere)
  for (const kind of new Set(altered.map(({ kind }) => kind)))
    for (const { from, reference } of referencesTo(kind)) {
      if (reference.seen !== 'here') continue
      const ids = [...records.all(kind)].map(({ id }) => id)
      await loadInto(records, client, from, collection, `AND ${leadsTo(from, reference, kind, '$2')}`, [ids])
    }
  const topics = new Set<string>()
  for (const kind of RECORD_KINDS) {
    if (kind === 'topic' || kinds[kind].seenEverywhere) continue
    for (const reference of kinds[kind].references)
      if (reference.seen === 'there')
        for (const record of records.all(kind))
          eachEnd(record, reference, (end) => {
            if (end.kind === 'topic' && !records.get('topic', end.id)) topics.add(end.id)
          })
  }
  if (topics.size > 0) await loadByIds(records, client, 'topic', collection, GIVEN, [[...topics]])
}

/** The records in which a column holds one of the ids in a parameter, each found by its index. */
const holding = (kind: 'crosslink' | 'map', column: string, ids: string) => `
  SELECT found.id FROM unnest(${ids}::uuid[]) AS want(wanted)
    CROSS JOIN LATERAL (SELECT id FROM ${kind} WHERE collection = $1 AND ${column} = wanted OFFSET 0) AS found`

const LINKS_AT = [
  holding('crosslink', 'from_topic', '$2'),
  holding('crosslink', 'to_topic', '$2'),
  holding('crosslink', 'to_map', '$3'),
  holding('crosslink', 'to_enclosure', '$4'),
  holding('crosslink', 'to_note', '$5'),
].join(' UNION ')

/** The links at everything that is loaded, with the topics at their far ends: on whose maps it is shown. */
async function loadLinks(client: Client, collection: string, records: Records, edits: readonly Edit[]): Promise<void> {
  const ids = (kind: RecordKind) => [...records.all(kind)].map(({ id }) => id)
  const carried = [...records.all('topic')].flatMap(({ note }) => note ?? [])
  await loadInto(records, client, 'enclosure', collection, 'AND topics && $2::uuid[]', [ids('topic')])
  const at = [ids('topic'), ids('map'), ids('enclosure'), [...ids('note'), ...carried]]
  await loadByIds(records, client, 'crosslink', collection, LINKS_AT, at)
  const ends = (kind: string, more: readonly string[] = []) => [
    ...more,
    ...edits.flatMap(({ kind: edited, after }) =>
      edited === 'crosslink' && after.to?.kind === kind && isRecordId(after.to.id) ? [after.to.id] : [],
    ),
    ...[...records.all('crosslink')].flatMap(({ to }) => (to.kind === kind ? [to.id as string] : [])),
  ]
  await loadByIds(records, client, 'enclosure', collection, GIVEN, [ends('enclosure')])
  const topics = ends('topic')
  for (const { from } of records.all('crosslink')) topics.push(from)
  for (const enclosure of records.all('enclosure')) topics.push(...enclosure.topics)
  await loadByIds(records, client, 'topic', collection, GIVEN, [topics])
  await loadByIds(records, client, 'topic', collection, GIVEN, [ends('note', carried)], 'note = wanted OFFSET 0')
}

/** Takes out of what is wanted what edits are about to make, and returns that. */
function takeOutNew(wanted: Wanted, edits: readonly Edit[]): Wanted {
  const made: Wanted = new Map()
  for (const { kind, id, before } of edits) if (before === null && wanted.get(kind)?.delete(id)) want(made, kind, id)
  return made
}

/** The ranks that edits want, each below its parent; below one that is new, nobody else wants one. */
function wishes(edits: readonly Edit[], made: ReadonlySet<string>): { parents: string[]; ranks: string[] } {
  const parents: string[] = []
  const ranks: string[] = []
  for (const edit of edits) {
    const place = edit.kind === 'topic' ? edit.after.place : undefined
    if (!place || !hangs(place) || !isRecordId(place.parent) || typeof place.rank !== 'string') continue
    if (made.has(place.parent)) continue
    parents.push(place.parent)
    ranks.push(storable(place.rank))
  }
  return { parents, ranks }
}

/** Everything below topics that are about to move or to go, trashed topics included. */
async function loadBelow(client: Client, collection: string, records: Records, edits: readonly Edit[]): Promise<void> {
  const heads = edits.flatMap((edit) =>
    edit.kind === 'topic' && 'place' in edit.after && isRecordId(edit.id) ? edit.id : [],
  )
  if (heads.length === 0) return
  const below = `
    WITH RECURSIVE below(id, map) AS (
      SELECT t.id, t.map FROM topic t WHERE t.collection = $1 AND t.id = ANY($2)
      UNION SELECT t.id, t.map FROM below JOIN topic t ON t.collection = $1 AND t.map = below.map AND t.parent = below.id
    ) SELECT id FROM below`
  await loadByIds(records, client, 'topic', collection, below, [heads])
}

/** The maps that arrive by any loaded topic, and the way up from them and from the wanted maps. */
async function loadHomeDoorways(client: Client, collection: string, records: Records, wanted: Wanted): Promise<void> {
  const topics = [...records.all('topic')].map((topic) => topic.id)
  const up = `
    WITH RECURSIVE up(id, home_doorway) AS (
      SELECT m.id, m.home_doorway FROM (SELECT unnest($2::uuid[]) UNION ${holding('map', 'home_doorway', '$3')}) AS start(map)
        CROSS JOIN LATERAL (SELECT id, home_doorway FROM map WHERE collection = $1 AND id = start.map LIMIT 1) m
      UNION SELECT m.id, m.home_doorway FROM up
        CROSS JOIN LATERAL (SELECT map FROM topic WHERE collection = $1 AND id = up.home_doorway LIMIT 1) t
        CROSS JOIN LATERAL (SELECT id, home_doorway FROM map WHERE collection = $1 AND id = t.map LIMIT 1) m
    ) SELECT id FROM up`
  const maps = await loadByIds(records, client, 'map', collection, up, [[...(wanted.get('map') ?? [])], topics])
  // A doorway may be about to lead up from a map that lay elsewhere until now.
  const doorways = maps.flatMap((map) => map.homeDoorway ?? [])
  await loadByIds(records, client, 'topic', collection, GIVEN, [doorways])
}
