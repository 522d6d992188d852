import { generateNKeysBetween } from 'fractional-indexing'
import { v7 as uuid } from 'uuid'
import { blankTopic } from '../../core/commands/blank-topic'
import { PLAIN_MAP } from '../../core/commands/maps'
import { evenSidesOf } from '../../core/commands/sides'
import type { ResultTopic } from '../../core/matching/merge-result'
import type { CollectionRecord } from '../../core/records/collection'
import { MapId } from '../../core/records/ids'
import type { Records } from '../../core/records/records'

/** A result as a map that can be laid out, with the topics by their ids; their looks are left out. */
export function recordsOfResult(
  rows: readonly ResultTopic[],
  collection: CollectionRecord,
  records: Records,
): { records: Records; map: MapId } {
  const map = MapId.parse(uuid())
  records.put('collection', { ...collection, homeMap: null })
  records.put('map', {
    id: map,
    title: '',
    ...PLAIN_MAP,
    trashed: false,
  })
  const ranks = generateNKeysBetween(null, null, rows.length)
  const way: ResultTopic[] = []
  rows.forEach((row, i) => {
    way.length = row.level
    const parent = way.at(-1)
    way.push(row)
    const place = parent
      ? { kind: 'arranged' as const, map, parent: parent.id, rank: ranks[i]!, side: null }
      : { kind: 'root' as const, map }
    records.put('topic', blankTopic(row.id, place, row.text))
  })
  const root = rows[0] && records.get('topic', rows[0].id)
  const branches = root ? records.children(root.id) : []
  evenSidesOf(records, branches).forEach((side, i) => {
    const topic = branches[i]!
    if (topic.place.kind === 'arranged') records.put('topic', { ...topic, place: { ...topic.place, side } })
  })
  return { records, map }
}
