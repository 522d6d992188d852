import { refuse } from '../changes/problem'
import { remembered } from '../matching/common-origin'
import { MapId, type TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { titleOf } from '../text/title'
import { topicsInOrder } from '../tree/walk'
import { command, type NewChange, named } from './command'
import { type Copy, copyBranches } from './copy-branches'

/**
 * Duplicates a map, alone or with the maps that are reached through it: doorways and links among them lead from copy to copy.
 * Refused where it is gone. O(topics of all of them).
 */
export const duplicateMap = command((change, args: { map: MapId; withChildren: boolean }) => {
  const { records } = change
  const first = change.map(args.map)
  const originals = args.withChildren ? familyOf(records, first.id) : [first.id]
  const copyOf = new Map<MapId, MapId>()
  const heads: Copy[] = []
  for (const map of originals) {
    const { title, ...original } = change.map(map)
    const root = records.root(map)
    if (!root) continue
    const id = change.newId(MapId)
    copyOf.set(map, id)
    const name = map === first.id ? titleOf(`${title || 'Untitled'}, copy`) : title
    change.create('map', { ...original, id, title: name, homeDoorway: null, trashed: false })
    heads.push(...headsOf(records, map, id, root))
  }
  const copies = copyBranches(change, heads)
  for (const [id, copy] of copies) {
    const original = records.need('topic', id)
    const opened = copyOf.get(original.opensMap ?? ('' as MapId))
    change.update('topic', copy, { ...(opened ? { opensMap: opened } : {}), copyOf: remembered(records, original) })
  }
  for (const [map, copy] of copyOf) {
    const { homeDoorway } = change.map(map)
    const doorway = homeDoorway && map !== first.id ? copies.get(homeDoorway) : undefined
    if (doorway) change.update('map', copy, { homeDoorway: doorway })
  }
  const root = records.root(copyOf.get(first.id) ?? '') ?? refuse('gone', 'This map is gone.')
  const label = `Duplicate ${named(first.title)}${originals.length > 1 ? ` with ${originals.length - 1} child maps` : ''}`
  return { label, select: [root.id] }
})

/** A map and all that are reached through it by home doorways, without those in the trash. Each once. */
function familyOf(records: Records, first: MapId): MapId[] {
  const family = new Set([first])
  for (const map of family)
    for (const topic of topicsInOrder(records, map))
      for (const child of records.mapsArrivingBy(topic.id)) if (!child.trashed) family.add(child.id)
  return [...family]
}

/** What stands on a map, to be copied to another one. */
const headsOf = (records: Records, map: MapId, to: MapId, root: TopicRecord): Copy[] => [
  { head: root, place: { kind: 'root', map: to } },
  ...records.looseBranches(map).map((head) => ({ head, place: { ...head.place, map: to } })),
]

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
  const copies = copyBranches(change, headsOf(records, map, id, root))
  for (const [topic, copy] of copies)
    change.update('topic', copy, { copyOf: remembered(records, records.need('topic', topic)) })
  if (root.text === original.title) change.update('topic', copies.get(root.id)!, { text: titleOf(title) })
  return { map: id, copies }
}
