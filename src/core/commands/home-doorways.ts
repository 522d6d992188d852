import type { MapId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { branch, isInTrash } from '../tree/walk'
import type { Draft } from './command'

/** The maps from which one arrives at this one by home doorways, nearest first. Stops at a loop. */
export function mapsAbove(records: Records, map: MapId): MapId[] {
  const above: MapId[] = []
  let at = records.get('topic', records.get('map', map)?.homeDoorway ?? null)?.place.map
  while (at && at !== map && !above.includes(at)) {
    above.push(at)
    at = records.get('topic', records.get('map', at)?.homeDoorway ?? null)?.place.map
  }
  return above
}

/** The oldest doorway to a map that can be its home doorway: not leaving, not in the trash, closing no loop. */
export function nextHomeDoorway(records: Records, map: MapId, leaving: ReadonlySet<string>): TopicId | null {
  const candidates = records
    .doorwaysTo(map)
    .filter((topic) => !leaving.has(topic.id) && !isInTrash(records, topic))
    .filter((topic) => topic.place.map !== map && !mapsAbove(records, topic.place.map).includes(map))
  return candidates.sort((a, b) => (a.id < b.id ? -1 : 1))[0]?.id ?? null
}

/** Gives the maps that are reached through these branches another home doorway, or none. What is in `kept` stays. */
export function releaseHomeDoorways(
  draft: Draft,
  heads: readonly TopicRecord[],
  kept: ReadonlySet<string> = new Set(),
): void {
  const { records } = draft
  const leaving = new Set<string>()
  for (const head of heads) for (const topic of branch(records, head)) if (!kept.has(topic.id)) leaving.add(topic.id)
  for (const id of leaving)
    for (const map of records.mapsArrivingBy(id))
      draft.update('map', map.id, { homeDoorway: nextHomeDoorway(records, map.id, leaving) })
}
