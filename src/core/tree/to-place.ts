import type { MapId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { ancestors } from './walk'

/**
 * The drawers of a map, oldest first. Their children are what is still to be placed. There is one; where two people
 * put something away at the same moment on a map that had none, there are two, and what is in them is taken together.
 */
export const drawersOf = (records: Records, map: string): TopicRecord[] =>
  records
    .heads(map)
    .filter(({ place, trashed }) => place.kind === 'to place' && !trashed)
    .sort((a, b) => (a.id < b.id ? -1 : 1))

/** What is still to be placed on a map, in order: branches with all below them. */
export const toPlaceOn = (records: Records, map: string): TopicRecord[] =>
  drawersOf(records, map).flatMap(({ id }) => records.children(id))

/** The map in whose drawer a topic lies; null where it stands on its map. O(levels). */
export function drawerAround(records: Records, topic: TopicRecord): MapId | null {
  for (const at of [topic, ...ancestors(records, topic)]) if (at.place.kind === 'to place') return at.place.map
  return null
}
