import type { MapId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { branch, isInTrash } from '../tree/walk'
import type { NewChange } from './command'

/** The maps from which one arrives at this one by home doorways, nearest first. Stops at a loop. O(maps above). */
export function mapsAbove(records: Records, map: MapId): MapId[] {
  const above = new Set<MapId>()
  const mapBefore = (at: MapId) => records.get('topic', records.get('map', at)?.homeDoorway ?? null)?.place.map
  for (let at = mapBefore(map); at && at !== map && !above.has(at); at = mapBefore(at)) above.add(at)
  return [...above]
}

/** The oldest doorway to a map that can be its home doorway: not leaving, not in the trash, closing no loop. */
export function nextHomeDoorway(records: Records, map: MapId, leaving: ReadonlySet<string>): TopicId | null {
  const candidates = records
    .doorwaysTo(map)
    .filter((topic) => !leaving.has(topic.id) && !isInTrash(records, topic))
    .filter((topic) => topic.place.map !== map && !mapsAbove(records, topic.place.map).includes(map))
  return candidates.sort((a, b) => (a.id < b.id ? -1 : 1))[0]?.id ?? null
}

/** Gives the maps that were reached through topics another home doorway, or none. */
export function leaveHomeDoorways(change: NewChange, leaving: ReadonlySet<string>): void {
  const { records } = change
  for (const id of leaving)
    for (const map of records.mapsArrivingBy(id))
      change.update('map', map.id, { homeDoorway: nextHomeDoorway(records, map.id, leaving) })
}

/** The same for all topics of branches. What is in `kept` stays. */
export function releaseHomeDoorways(
  change: NewChange,
  heads: readonly TopicRecord[],
  kept: ReadonlySet<string> = new Set(),
): void {
  const leaving = new Set<string>()
  for (const head of heads)
    for (const topic of branch(change.records, head)) if (!kept.has(topic.id)) leaving.add(topic.id)
  leaveHomeDoorways(change, leaving)
}

/** Makes doorways that come out of the trash the home doorways of those maps that have none. */
export function regainHomeDoorways(change: NewChange, topics: Iterable<TopicRecord>): void {
  const { records } = change
  for (const { opensMap } of topics) {
    const map = records.get('map', opensMap)
    if (!map || map.homeDoorway !== null) continue
    const homeDoorway = nextHomeDoorway(records, map.id, new Set())
    if (homeDoorway) change.update('map', map.id, { homeDoorway })
  }
}
