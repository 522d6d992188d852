import type { Reference } from '../../core/records/kind'
import { RECORD_KINDS, type RecordByKind, type RecordKind } from '../../core/records/kinds'
import type { Records } from '../../core/records/records'
import { type Client, prepared } from '../database'
import { attachmentTable } from './attachment-table'
import { collectionTable } from './collection-table'
import { commentTable } from './comment-table'
import { crosslinkTable } from './crosslink-table'
import { enclosureTable } from './enclosure-table'
import { fileTable } from './file-table'
import { folderTable } from './folder-table'
import { lookTable } from './look-table'
import { mapTable } from './map-table'
import { noteTable } from './note-table'
import { pageTable } from './page-table'
import { searchTable } from './search-table'
import type { Table } from './table'
import { tagTable } from './tag-table'
import { templateTable } from './template-table'
import { topicTable } from './topic-table'
import { weblinkTable } from './weblink-table'

const tables: { [K in RecordKind]: Table<K> } = {
  collection: collectionTable,
  map: mapTable,
  topic: topicTable,
  note: noteTable,
  crosslink: crosslinkTable,
  weblink: weblinkTable,
  attachment: attachmentTable,
  file: fileTable,
  enclosure: enclosureTable,
  comment: commentTable,
  tag: tagTable,
  look: lookTable,
  template: templateTable,
  folder: folderTable,
  search: searchTable,
  page: pageTable,
}

/** What a browser sends may be anything until it is prepared; only what can be an id is asked for. */
export const isRecordId = (id: unknown): id is string =>
  typeof id === 'string' && /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(id)

/** Whether a word, as it came from outside, names a kind of record. */
export const isTable = (kind: string): kind is RecordKind => Object.hasOwn(tables, kind)

/** A condition for those records whose reference leads to a far end of `far` among the ids in a parameter such as `$2`. */
export function leadsTo(kind: RecordKind, { path }: Reference, far: RecordKind, parameter: string): string {
  const column = tables[kind].columns[path]
  if (column === undefined) throw new Error(`The table of ${kind} has no column for ${path}.`)
  if (typeof column === 'string') return `${column} = ANY(${parameter}::uuid[])`
  if ('each' in column) return `${column.each} && ${parameter}::uuid[]`
  return column[far] ? `${column[far]} = ANY(${parameter}::uuid[])` : 'false'
}

/** Records of one kind. `condition` narrows by further parameters from `$2` on, e.g. `AND id = ANY($2)`. */
export async function selectRecords<K extends RecordKind>(
  client: Client,
  kind: K,
  collection: string,
  condition = '',
  parameters: unknown[] = [],
): Promise<RecordByKind[K][]> {
  const text = `${tables[kind].select} ${condition}`
  const { rows } = await prepared<RecordByKind[K]>(client, text, [collection, ...parameters])
  return rows
}

/** The ids in `$2`. */
export const GIVEN = 'SELECT DISTINCT unnest($2::uuid[])'

/**
 * Loads the records whose ids a query yields, or those that `match` them in another way. One by one by their keys, whatever the planner thinks: told that there are
 * few records in a collection that its statistics do not know yet, it would read the whole collection to find some.
 */
export async function loadByIds<K extends RecordKind>(
  into: Records,
  client: Client,
  kind: K,
  collection: string,
  ids: string,
  parameters: unknown[],
  match = 'id = wanted LIMIT 1',
): Promise<RecordByKind[K][]> {
  const text = `SELECT found.* FROM (${ids}) AS want(wanted)
    CROSS JOIN LATERAL (${tables[kind].select} AND ${match}) AS found`
  const { rows } = await prepared<RecordByKind[K]>(client, text, [collection, ...parameters])
  for (const record of rows) if (!into.get(kind, record.id)) into.put(kind, record)
  return rows
}

/** Loads records into `into`, without touching those that are there already. */
export async function loadInto<K extends RecordKind>(
  into: Records,
  client: Client,
  kind: K,
  collection: string,
  condition = '',
  parameters: unknown[] = [],
): Promise<RecordByKind[K][]> {
  const rows = await selectRecords(client, kind, collection, condition, parameters)
  for (const record of rows) if (!into.get(kind, record.id)) into.put(kind, record)
  return rows
}

/** Writes the records with these ids as they are in `records`; `insert` fails where there is one of that id. */
export async function writeRecords(
  client: Client,
  collection: string,
  records: Records,
  touched: ReadonlyMap<RecordKind, ReadonlySet<string>>,
  how: 'insert' | 'upsert',
): Promise<void> {
  const writes = RECORD_KINDS.flatMap((kind) => {
    const ids = touched.get(kind)
    if (!ids || ids.size === 0) return []
    const rows = [...ids].map((id) => records.need(kind, id))
    const text = how === 'upsert' ? tables[kind].upsert : tables[kind].upsert.split('ON CONFLICT', 1)[0]!
    return prepared(client, text, [collection, JSON.stringify(rows)])
  })
  await Promise.all(writes)
}

/** Removes records for good; whatever leads to them has to go in the same transaction. */
export async function removeRecords(
  client: Client,
  collection: string,
  gone: ReadonlyMap<RecordKind, ReadonlySet<string>>,
): Promise<void> {
  for (const [kind, ids] of gone)
    await client.query(`DELETE FROM ${kind} WHERE collection = $1 AND id IN (SELECT unnest($2::uuid[]))`, [
      collection,
      [...ids],
    ])
}

/** Every record of a collection. Memory and time grow with the collection: for publishing, merging and checks. */
export async function loadCollection(client: Client, into: Records, collection: string): Promise<void> {
  for (const kind of RECORD_KINDS) await loadInto(into, client, kind, collection)
}
