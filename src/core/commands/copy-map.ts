import { refuse } from '../changes/problem'
import { MapId, type TopicId } from '../records/ids'
import { titleOf } from '../text/title'
import type { NewChange } from './command'
import { copyBranches } from './copy-branches'

/**
 * Copies a map with all that stands on it, as a part of a larger change; what is still to be placed stays with the original.
 * Returns the copy, and the copy of each topic. Refused where the map is gone. O(topics).
 */
export function copyMap(
  change: NewChange,
  map: MapId,
  title: string,
): { map: MapId; copies: ReadonlyMap<TopicId, TopicId> } {
  const { records } = change
  const original = change.map(map)
  const root = records.root(map) ?? refuse('gone', 'This map is gone.')
  const id = change.newId(MapId)
  change.create('map', { ...original, id, title: titleOf(title), homeDoorway: null, trashed: false })
  const copies = copyBranches(change, [
    { head: root, place: { kind: 'root', map: id } },
    ...records.looseBranches(map).map((head) => ({ head, place: { ...head.place, map: id } })),
  ])
  if (root.text === original.title) change.update('topic', copies.get(root.id)!, { text: titleOf(title) })
  return { map: id, copies }
}
