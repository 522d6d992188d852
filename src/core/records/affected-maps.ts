import type { MapId } from './ids'
import { type AnyRecord, kinds, type RecordByKind, type RecordKind, referencesTo } from './kinds'
import type { Records } from './records'
import { type End, eachEnd } from './reference-path'

/**
 * The maps on which a record is seen, or all of them: what a change of it touches, for grants, history and the stream of
 * changes. As far as the records are held: what leads to one that is not held, leads nowhere.
 */
export function affectedMaps(records: Records, kind: RecordKind, record: AnyRecord): Set<MapId> | 'all' {
  if (kinds[kind].seenEverywhere) return 'all'
  const maps = new Set<MapId>()
  if (kind === 'map') maps.add((record as RecordByKind['map']).id)
  for (const { from, reference } of referencesTo(kind))
    if (reference.seen === 'here')
      for (const referring of records.referring(from, reference, { kind, id: record.id })) {
        if (kinds[from].seenEverywhere) return 'all'
        if (from === 'map') maps.add((referring as RecordByKind['map']).id)
      }
  const addTopics = (of: RecordKind, shown: AnyRecord) => {
    for (const id of records.topicsShowing(of, shown)) {
      const topic = records.get('topic', id)
      if (topic) maps.add(topic.place.map)
    }
  }
  addTopics(kind, record)
  // Whoever is linked with it, or with what it carries, shows its name.
  const addLinksTo = (end: End) => {
    for (const { from, reference } of referencesTo(end.kind as RecordKind))
      if (reference.to === null) for (const link of records.referring(from, reference, end)) addTopics(from, link)
  }
  addLinksTo({ kind, id: record.id })
  for (const reference of kinds[kind].references)
    if (reference.hold === 'carries') eachEnd(record, reference, addLinksTo)
  // A map to which a link leads is known by the link alone.
  const addMapEnd = (of: RecordKind, link: AnyRecord) => {
    for (const reference of kinds[of].references)
      if (reference.to === null)
        eachEnd(link, reference, (end) => {
          if (end.kind === 'map') maps.add(end.id as MapId)
        })
  }
  addMapEnd(kind, record)
  for (const { from, reference } of referencesTo(kind))
    if (reference.seen === 'there' && reference.hold === 'inside')
      for (const link of records.referring(from, reference, { kind, id: record.id })) addMapEnd(from, link)
  return maps
}
