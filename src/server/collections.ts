import { v7 as uuid } from 'uuid'
import type { Waiting } from '../core/network/waiting'
import type { MapId } from '../core/records/ids'
import { kinds, RECORD_KINDS, type RecordByKind, type RecordKind, referencesTo } from '../core/records/kinds'
import { Records } from '../core/records/records'
import { eachEnd } from '../core/records/reference-path'
import type { SearchRecord } from '../core/records/search'
import type { CollectionDigest, MapDigest, MapSnapshot, Role } from '../core/records/snapshot'
import type { TemplateRecord } from '../core/records/template'
import { mayRead, onlyMaps, type Reach, reachesAll, roleOn, strongestOf } from '../core/rights/grant'
import { type FarCarrier, openRows, openSnapshot } from '../core/rights/kept-back'
import { type Client, prepared, snapshot } from './database'
import type { Member } from './http/endpoint'
import { forgetRoles, reachesOf } from './people/rights'
import { digestsAfter } from './records/digests'
import { GIVEN, isTable, leadsTo, loadByIds, loadCollection, loadInto, selectRecords } from './records/tables'

/** A map with its last change, and when that was. */
type ChangedMap = Waiting['lately'][number]

export interface CollectionRow {
  id: string
  title: string
  role: Role
  trashed: boolean
  maps: number
  topics: number
  homeMap: string | null
  changedAt: string | null
  /** The maps that were changed last, besides the home map, with the name of the last change; none to whom only some are open. */
  lately: ChangedMap[]
  published: boolean
}

/** Makes an empty collection; `wanted` is its id unless there is one of that id already. */
export async function createCollection(
  client: Client,
  owner: string,
  title: string,
  wanted: string = uuid(),
): Promise<string> {
  const insert = 'INSERT INTO collection (id, title) VALUES ($1, $2) ON CONFLICT (id) DO NOTHING'
  const { rowCount } = await client.query(insert, [wanted, title])
  const id = rowCount === 1 ? wanted : uuid()
  if (id !== wanted) await client.query(insert, [id, title])
  await client.query('INSERT INTO collection_counter (collection) VALUES ($1)', [id])
  await addMember(client, id, owner, 'owner')
  return id
}

/** Gives somebody a role in all of a collection, instead of the one that they have. */
export async function addMember(client: Client, collection: string, person: string, role: Role): Promise<void> {
  await client.query(
    `INSERT INTO access_grant (id, collection, person, role) VALUES ($1, $2, $3, $4)
     ON CONFLICT (person, collection) WHERE maps IS NULL DO UPDATE SET role = excluded.role, ends_at = NULL`,
    [uuid(), collection, person, role],
  )
  forgetRoles()
}

/** The collections of which something is open to a person, most recently changed first. */
export function collectionsOf(person: string): Promise<CollectionRow[]> {
  return snapshot(async (client) => {
    const { rows } = await client.query<Known>(
      `SELECT c.id, c.title, c.trashed, c.home_map AS "homeMap",
              EXISTS (SELECT FROM publication p WHERE p.collection = c.id AND p.change_number > 0) AS published,
              (SELECT at FROM change WHERE change.collection = c.id ORDER BY number DESC LIMIT 1) AS "changedAt"
       FROM collection c WHERE c.id IN (SELECT collection FROM open_grant WHERE person = $1)
       ORDER BY "changedAt" DESC NULLS LAST, c.id`,
      [person],
    )
    return Promise.all(rows.map((row) => countedFor(client, person, row)))
  })
}

type Known = Omit<CollectionRow, 'role' | 'maps' | 'topics' | 'lately'>

/** Of the last changes of a collection so many are looked at for the maps that were changed last. */
const LOOKED_AT = 200
const LATELY = `
  SELECT m.id AS map, m.title, last.label, last.at
  FROM (
    SELECT DISTINCT ON (map) map, number, label, at
    FROM (SELECT number, label, at, maps FROM change WHERE collection = $1 ORDER BY number DESC LIMIT ${LOOKED_AT}) c
    CROSS JOIN LATERAL unnest(c.maps) AS map
    ORDER BY map, number DESC) last
  JOIN map m ON m.collection = $1 AND m.id = last.map AND NOT m.trashed
  WHERE m.id IS DISTINCT FROM $2
  ORDER BY last.number DESC LIMIT $3`

const COUNTS = `
  SELECT (SELECT count(*)::int FROM map m WHERE m.collection = $1 AND NOT m.trashed
            AND ($2::uuid[] IS NULL OR m.id = ANY($2))) AS maps,
         (SELECT COALESCE(sum(g.topics), 0)::int FROM map_digest g
          CROSS JOIN LATERAL (SELECT trashed FROM map WHERE collection = $1 AND id = g.map LIMIT 1) m
          WHERE g.collection = $1 AND NOT m.trashed AND ($2::uuid[] IS NULL OR g.map = ANY($2))) AS topics`

/** The maps of a collection that were changed last, each with its last change, the latest first. */
export async function changedLast(
  client: Client,
  collection: string,
  { without, most }: { without: string | null; most: number },
): Promise<ChangedMap[]> {
  return (await prepared<ChangedMap>(client, LATELY, [collection, without, most])).rows
}

/** What somebody may know of a collection without opening it. */
async function countedFor(client: Client, person: string, row: Known): Promise<CollectionRow> {
  const [reach] = await reachesOf(client, row.id, [person])
  const only = onlyMaps(reach!)
  const { rows } = await prepared<{ maps: number; topics: number }>(client, COUNTS, [row.id, only])
  const lately = only ? [] : await changedLast(client, row.id, { without: row.homeMap, most: 3 })
  return {
    ...row,
    ...rows[0]!,
    lately,
    role: strongestOf(reach!) ?? 'reader',
    homeMap: row.homeMap && mayRead(reach!, row.homeMap) ? row.homeMap : null,
    // Changes of what is not open to them tell them nothing, not even when they were.
    changedAt: only ? null : row.changedAt,
  }
}

/** The number of the last change of a collection; 0 where there is none. */
export async function numberOf(client: Client, collection: string): Promise<number> {
  const text = 'SELECT last FROM collection_counter WHERE collection = $1'
  const { rows } = await prepared<{ last: number }>(client, text, [collection])
  return rows[0]?.last ?? 0
}

/** One row for each map that is open to somebody, whatever it holds. */
export function digestOf({ collection, role, reach, person }: Member): Promise<CollectionDigest> {
  return snapshot(async (client) => {
    const [record] = await selectRecords(client, 'collection', collection)
    const rows = await digestsAfter(client, collection, -1)
    return {
      number: await numberOf(client, collection),
      collection: record!,
      role,
      roles: reach.everywhere === role ? null : Object.fromEntries(rolesOf(rows, reach)),
      person: person.id as CollectionDigest['person'],
      maps: openRows(rows, reach),
      folders: reachesAll(reach) ? await selectRecords(client, 'folder', collection) : [],
    }
  })
}

/** The kinds of which a browser holds all records, whatever map is open. Templates are fetched when they are needed. */
const HELD_WHOLE = ['tag', 'look'] as const

const rolesOf = (rows: readonly MapDigest[], reach: Reach): [string, Role][] =>
  rows.flatMap(({ id }): [string, Role][] => {
    const role = roleOn(reach, id)
    return role ? [[id, role]] : []
  })

/** Everything that an open map needs; null where there is no such map in the collection, or it is not open to them. */
export function mapSnapshot({ collection, reach }: Member, map: MapId): Promise<MapSnapshot | null> {
  return snapshot(async (client) => {
    if (!mayRead(reach, map)) return null
    const held = new Records()
    if (!(await loadMap(client, held, collection, map))) return null
    for (const kind of HELD_WHOLE) await loadInto(held, client, kind, collection)
    const records: { [K in RecordKind]?: RecordByKind[K][] } = {}
    const keep = <K extends RecordKind>(kind: K) => {
      const found: RecordByKind[K][] = [...held.all(kind)]
      Object.assign(records, { [kind]: found })
    }
    for (const kind of RECORD_KINDS) keep(kind)
    const number = await numberOf(client, collection)
    return openSnapshot({ number, map, records }, await farTopics(client, collection, held), reach)
  })
}

/** Loads a map with all that stands on it, is carried there, and is shown at it. Returns whether there is one. */
async function loadMap(client: Client, held: Records, collection: string, map: string): Promise<boolean> {
  const load = <K extends RecordKind>(kind: K, condition: string, parameters: unknown[]) =>
    loadInto(held, client, kind, collection, condition, parameters)
  const loadEnds = async (kind: RecordKind, ids: readonly string[]) => {
    if (ids.length > 0) await loadByIds(held, client, kind, collection, GIVEN, [ids])
  }
  if ((await load('map', 'AND id = $2', [map])).length === 0) return false
  // What hangs on the topics, and what is drawn at them; their ids stay in the database.
  const hanging = [...referencesTo('topic')].filter(
    ({ from, reference }) => from !== 'topic' && reference.seen === 'there',
  )
  const [topics] = await Promise.all([
    load('topic', 'AND map = $2', [map]),
    ...hanging.map(({ from, reference }) => load(from, `AND ${leadsTo(from, reference, 'topic', HERE)}`, [map])),
  ])
  // Links that lead here: those to what stands here, not those to what links from here lead to.
  const ends = [...held.all('enclosure')].map(({ id }): string => id).concat(topics.flatMap(({ note }) => note ?? []))
  for (const [kind, ids] of endsToFollow(held)) await loadEnds(kind, ids)
  for (const end of ['map', 'enclosure', 'note'] as const)
    await load('crosslink', `AND ${leadsTo('crosslink', linkEnd, end, '$2')}`, [end === 'map' ? [map] : ends])
  for (const [kind, ids] of endsToFollow(held)) await loadEnds(kind, ids)
  return true
}

/** The maps on which what has these ids stands: maps themselves, topics, enclosures, notes by those who carry them, links by where they begin. */
const MAPS_OF = `
  SELECT id AS map FROM map WHERE collection = $1 AND id = ANY($2)
  UNION SELECT map FROM topic WHERE collection = $1 AND id = ANY($2)
  UNION SELECT map FROM topic WHERE collection = $1 AND note = ANY($2)
  UNION SELECT t.map FROM (
      SELECT unnest(topics) AS id FROM enclosure WHERE collection = $1 AND id = ANY($2)
      UNION SELECT from_topic FROM crosslink WHERE collection = $1 AND id = ANY($2)) AS at
    CROSS JOIN LATERAL (SELECT map FROM topic WHERE collection = $1 AND id = at.id LIMIT 1) t`

/** Beyond so many maps, all of the collection is read at once. */
const MOST_MAPS = 20

/**
 * The maps on which what has these ids stands, each with all that a browser holds of it, and what every map shares: what a command needs
 * that looks at nothing else. All of the collection where that is many maps.
 */
export function mapsAround(collection: string, ids: readonly string[]): Promise<{ records: Records; number: number }> {
  return snapshot(async (client) => {
    const records = new Records()
    const { rows } = await prepared<{ map: string }>(client, MAPS_OF, [collection, ids])
    if (rows.length > MOST_MAPS) await loadCollection(client, records, collection)
    else {
      for (const { map } of rows) await loadMap(client, records, collection, map)
      for (const kind of ['collection', ...HELD_WHOLE] as const) await loadInto(records, client, kind, collection)
    }
    return { records, number: await numberOf(client, collection) }
  })
}

/** The topics of the map in `$2`. */
const HERE = 'ARRAY(SELECT id FROM topic WHERE collection = $1 AND map = $2)'

const linkEnd = kinds.crosslink.references.find(({ path }) => path === 'to')!

/** What records carry, what is shown at them, and the enclosures and notes to which links lead. */
function endsToFollow(held: Records): Map<RecordKind, string[]> {
  const ends = new Map<RecordKind, string[]>()
  for (const kind of RECORD_KINDS)
    for (const record of held.all(kind))
      for (const reference of kinds[kind].references) {
        if (reference.hold !== 'carries' && reference.seen !== 'here' && reference.to !== null) continue
        eachEnd(record, reference, (end) => {
          if (!isTable(end.kind) || held.get(end.kind, end.id)) return
          if (reference.to === null && end.kind !== 'enclosure' && end.kind !== 'note') return
          const known = ends.get(end.kind)
          if (known) known.push(end.id)
          else ends.set(end.kind, [end.id])
        })
      }
  return ends
}

/** The topics at which links end that are not held: ends themselves, inside enclosures, and carrying notes. */
async function farTopics(client: Client, collection: string, held: Records): Promise<FarCarrier[]> {
  const far = new Set<string>()
  // What lies in the trash is not shown: a browser asks again when it comes back.
  const links = [...held.all('crosslink')].filter(({ trashed }) => !trashed)
  for (const { from, to } of links) {
    far.add(from)
    if (to.kind === 'topic') far.add(to.id)
    if (to.kind === 'enclosure') for (const topic of held.get('enclosure', to.id)?.topics ?? []) far.add(topic)
  }
  const notes = links.flatMap(({ to }) => (to.kind === 'note' ? to.id : []))
  const unheld = [...far].filter((id) => !held.get('topic', id))
  const { rows } = await client.query<FarCarrier>(
    'SELECT id, map, text, note FROM topic WHERE collection = $1 AND (id = ANY($2) OR note = ANY($3))',
    [collection, unheld, notes],
  )
  return rows.filter(({ id }) => !held.get('topic', id))
}

/** The templates that were kept in a collection, without those in the trash. */
export const templatesOf = (collection: string): Promise<TemplateRecord[]> =>
  snapshot((client) => selectRecords(client, 'template', collection, 'AND NOT trashed ORDER BY name, id'))

/** The searches that were kept in a collection, without those in the trash. */
export const searchesOf = (collection: string): Promise<SearchRecord[]> =>
  snapshot((client) => selectRecords(client, 'search', collection, 'AND NOT trashed ORDER BY name, id'))

/** All records of a collection as of one moment, with the number of its last change. */
export function wholeCollection(
  collection: string,
  load: (client: Client, into: Records) => Promise<void> = (client, into) => loadCollection(client, into, collection),
): Promise<{ records: Records; number: number }> {
  return snapshot(async (client) => {
    const records = new Records()
    await load(client, records)
    return { records, number: await numberOf(client, collection) }
  })
}
