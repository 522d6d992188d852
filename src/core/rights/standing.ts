import type { MapId } from '../records/ids'
import { type AnyRecord, kinds, type RecordByKind, type RecordKind, referencesTo } from '../records/kinds'
import type { Records } from '../records/records'
import { endsOf } from '../records/reference-path'

/**
 * The maps of which a record is a part: a topic stands on its map, a note wherever it is carried, a cross-link where it
 * begins. None for what belongs to the collection as a whole, and for what nobody carries. Unlike `affectedMaps`, it leaves
 * out where something of the record is merely shown. As far as what carries the record is held.
 */
export function standsOn(records: Records, kind: RecordKind, record: AnyRecord): Set<MapId> {
  const maps = new Set<MapId>()
  collect(records, kind, record, maps)
  return maps
}

function collect(records: Records, kind: RecordKind, record: AnyRecord, maps: Set<MapId>): void {
  if (kinds[kind].seenEverywhere) return
  if (kind === 'map') maps.add((record as RecordByKind['map']).id)
  // All above a topic stand on the same map.
  else if (kind === 'topic') maps.add((record as RecordByKind['topic']).place.map)
  else {
    for (const reference of kinds[kind].references)
      if (reference.hold === 'inside')
        for (const end of endsOf(record, reference)) {
          const whole = records.get(end.kind as RecordKind, end.id)
          if (whole) collect(records, end.kind as RecordKind, whole, maps)
        }
    for (const { from, reference } of referencesTo(kind))
      if (reference.seen === 'here')
        for (const carrier of records.referring(from, reference, { kind, id: record.id }))
          collect(records, from, carrier, maps)
  }
}
