import { affectedMaps } from '../records/affected-maps'
import type { MapId } from '../records/ids'
import type { AnyRecord } from '../records/kinds'
import type { Records } from '../records/records'
import type { Edit } from './edit'

/**
 * The maps on which something of a change is seen, before it or after it, or all of them: who has none of these open needs
 * nothing of it. `records` are as they stand after the change, with what shows the touched records as far as it is known.
 */
export function touchedMaps(records: Records, edits: readonly Edit[]): Set<MapId> | 'all' {
  const maps = new Set<MapId>()
  for (const edit of edits) {
    const after: AnyRecord = records.need(edit.kind, edit.id)
    const versions = edit.before === null ? [after] : [after, { ...after, ...edit.before } as AnyRecord]
    for (const version of versions) {
      const affected = affectedMaps(records, edit.kind, version)
      if (affected === 'all') return 'all'
      for (const map of affected) maps.add(map)
    }
    // A topic is found by its id where it stands now: where it stood is told by the edit alone.
    if (edit.kind === 'topic' && edit.before?.place) maps.add(edit.before.place.map)
  }
  return maps
}
