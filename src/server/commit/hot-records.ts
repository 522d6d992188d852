import { LRUCache } from 'lru-cache'
import type { Edit, EditOf } from '../../core/changes/edit'
import { RECORD_KINDS, type RecordKind } from '../../core/records/kinds'
import { hangs } from '../../core/records/place'
import type { Records } from '../../core/records/records'

/**
 * Records of a collection as they stand after change `last`, kept from one commit to the next; `last` may still be on its
 * way into the database.
 */
interface Hot {
  last: number
  records: Records
  size: number
}

/** Most records of one collection, and of all together, that are kept. */
const MOST_OF_ONE = 20_000
const hot = new LRUCache<string, Hot>({ maxSize: 200_000, sizeCalculation: ({ size }) => Math.max(1, size) })

export const hotRecords = (collection: string): Hot | undefined => hot.get(collection)

/** Forgets records that turned out not to be what is stored, if they are still the ones that are kept. */
export function forgetHot(collection: string, records: Records): void {
  if (hot.peek(collection)?.records === records) hot.delete(collection)
}

/** Keeps what a commit loaded and wrote; with what was kept before, where nobody else has committed in between. */
export function keepHot(collection: string, before: number, last: number, loaded: Records): void {
  const known = hot.get(collection)
  const isCurrent = known?.last === before
  if (known && isCurrent && known.records !== loaded)
    for (const kind of RECORD_KINDS) putAll(known.records, kind, loaded)
  const records = known && isCurrent ? known.records : loaded
  let size = 0
  for (const kind of RECORD_KINDS) size += records.count(kind)
  if (size > MOST_OF_ONE) hot.delete(collection)
  else hot.set(collection, { last, records, size })
}

function putAll<K extends RecordKind>(into: Records, kind: K, from: Records): void {
  for (const record of from.all(kind)) into.put(kind, record)
}

/** Fields of topics that lead nowhere, whose change moves nothing else, and that are shown nowhere but at the topic. */
const PLAIN: ReadonlySet<string> = new Set(['folded', 'width', 'number', 'dates', 'task', 'badges', 'held'])

/**
 * Whether preparing these edits looks at nothing beyond `records`, but for what the database itself refuses: that an id or
 * a rank is taken. True for what people do most: adding topics where others were added.
 */
export function suffices(records: Records, edits: readonly Edit[]): boolean {
  const added = new Set<string>()
  return edits.every((edit) => {
    if (edit.kind !== 'topic') return false
    if (edit.before !== null)
      return Object.keys(edit.after).every((field) => PLAIN.has(field)) && isHeld(records, edit.id)
    if (!isPlainTopic(records, edit, added)) return false
    added.add(edit.id)
    return true
  })
}

/** A new topic below one that is held, with nothing that leads elsewhere. */
function isPlainTopic(records: Records, { id, after }: EditOf<'topic'>, added: ReadonlySet<string>): boolean {
  const { place, note, opensMap, picture, tags, trashed } = after
  if (records.get('topic', id) || place?.kind !== 'arranged' || note || opensMap || picture || trashed) return false
  return Array.isArray(tags) && tags.length === 0 && (added.has(place.parent) || isHeld(records, place.parent))
}

/** Whether a topic is held with all above it, and the map on which it stands. */
function isHeld(records: Records, id: string): boolean {
  const seen = new Set<string>()
  for (let at = records.get('topic', id); at; at = records.get('topic', at.place.parent)) {
    if (!hangs(at.place))
      return records.root(at.place.map) !== undefined && records.get('map', at.place.map)?.trashed === false
    if (seen.has(at.id)) return false
    seen.add(at.id)
  }
  return false
}
