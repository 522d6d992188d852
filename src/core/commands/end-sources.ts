import type { Part } from '../matching/decisions'
import type { MapId, TopicId } from '../records/ids'
import type { TopicRecord } from '../records/topic'
import type { NewChange } from './command'
import { lead } from './crosslinks'
import { nextHomeDoorway } from './home-doorways'
import { trashMap } from './maps'
import { trashBranches } from './trash-branches'

/** A merge that has been done: where each topic of the sources went. */
interface Merged {
  result: MapId
  sources: readonly MapId[]
  parts: readonly Part[]
  went: ReadonlyMap<TopicId, TopicId>
}

/** Links from elsewhere to topics of the sources lead to where these went. Returns how many. */
export function leadLinks(change: NewChange, { went }: Merged): number {
  let count = 0
  for (const [source, topic] of went)
    for (const link of change.records.crosslinksTo('topic', source)) {
      // Links among what was merged were copied with it.
      if (went.has(link.from)) continue
      lead(change, link, { to: { kind: 'topic', id: topic } })
      count++
    }
  return count
}

/**
 * Ends the sources of a merge: each goes into the trash, or only its root stays, as a doorway to the result; what led to the maps
 * leads to the result. Of a source that was taken over in part, that part alone ends. Returns how many links and doorways lead
 * elsewhere now. Refused for the home map of the collection where it would go into the trash.
 */
export function endSources(change: NewChange, { result, sources, parts }: Merged, then: 'doorway' | 'trash'): number {
  let count = 0
  for (const map of sources) {
    const part = parts.find(([of]) => of === map)
    if (part) endBranch(change, change.topic(part[1]), result, then)
    else {
      if (then === 'trash') count += leadToMap(change, map, result)
      const root = change.records.root(map)
      const loose = change.records.looseBranches(map)
      if (then === 'trash') trashMap.within(change, { map })
      else if (root) {
        endBranch(change, root, result, then)
        trashBranches(change, loose)
      }
    }
  }
  const { homeDoorway } = change.map(result)
  if (homeDoorway === null && change.records.collection()?.homeMap !== result)
    change.update('map', result, { homeDoorway: nextHomeDoorway(change.records, result, new Set()) })
  return count
}

/** What hangs on a topic goes into the trash, and the topic too, or it opens the result from now on. */
function endBranch(change: NewChange, head: TopicRecord, result: MapId, then: 'doorway' | 'trash'): void {
  trashBranches(change, then === 'trash' ? [head] : change.records.children(head.id))
  if (then === 'doorway' && head.opensMap === null) change.update('topic', head.id, { opensMap: result, folded: false })
}

/** Doorways and links to a map lead to another one; one that stands on that map opens nothing any more. */
function leadToMap(change: NewChange, from: MapId, to: MapId): number {
  const { records } = change
  let count = 0
  change.update('map', from, { homeDoorway: null })
  for (const doorway of records.doorwaysTo(from)) {
    change.update('topic', doorway.id, { opensMap: doorway.place.map === to ? null : to })
    count++
  }
  for (const link of records.crosslinksTo('map', from)) {
    lead(change, link, { to: { kind: 'map', id: to } })
    count++
  }
  return count
}
