import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import type { NumberingScheme } from '../records/layout'
import type { Look } from '../records/look'
import { hangs, isRoot, parentOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { titleOf } from '../text/title'
import { mapNumbers } from '../tree/map-numbers'
import { levelOf } from '../tree/walk'
import { command, named } from './command'
import { insertBetween } from './insert-between'
import { createMap } from './maps'
import { evenSidesOf, layoutBelow } from './sides'

/** A topic and those above it, from it upward. */
function* upFrom(records: Records, topic: TopicRecord): Generator<TopicRecord> {
  for (let at: TopicRecord | undefined = topic; at; at = records.get('topic', parentOf(at))) yield at
}

/** What branches above have set for a topic and all below it; null where they have set nothing. */
function branchLookAt(records: Records, topic: TopicRecord): Look | null {
  let look: Look = {}
  for (const at of upFrom(records, topic)) look = { ...at.branchLook, ...look }
  return Object.keys(look).length > 0 ? look : null
}

/** The scheme by which what hangs below a topic is numbered: its own, or that of what is around it. */
function numberingAt(records: Records, topic: TopicRecord): NumberingScheme | null {
  for (const { numbering } of upFrom(records, topic)) if (numbering) return numbering
  let head = topic
  for (const at of upFrom(records, topic)) head = at
  return isRoot(head) ? (records.get('map', topic.place.map)?.numbering ?? null) : null
}

/** A branch that becomes a map: the topic that stays as its doorway, and the name of the map, where it is not the topic's. */
export interface SplitOff {
  topic: TopicId
  name?: string
}

/**
 * Moves what lies below a topic into a new child map and makes the topic its doorway. Ids stay, so notes, files,
 * links and history go with their topics, and cross-links between the two become links between maps. The child map
 * looks, is set and is numbered as the branch was; its root keeps the number that the topic had. Refused where the
 * topic is gone, is a root or a doorway, or has nothing below it. O(topics of the branch).
 */
export const splitOff = command((change, args: SplitOff) => {
  const { records } = change
  const topic = change.topic(args.topic)
  const children = records.children(topic.id)
  if (isRoot(topic)) refuse('root', 'The root of a map cannot be split off: choose a branch.')
  if (topic.opensMap) refuse('doorway', 'This topic opens a map already.')
  if (children.length === 0) refuse('invalid', 'There is nothing below this topic to split off.')
  const numbering = numberingAt(records, topic)
  const { map, root } = createMap(change, titleOf(args.name ?? topic.text) || 'Untitled', topic.text, {
    homeDoorway: topic.id,
    layout: layoutBelow(records, topic),
    spacing: change.map(topic.place.map).spacing,
    numbering,
    look: change.map(topic.place.map).look,
  })
  const number = topic.number ?? (numbering ? (mapNumbers(records, topic.place.map).get(topic.id) ?? null) : null)
  change.update('topic', root.id, { branchLook: branchLookAt(records, topic), number })
  const sides = new Map(evenSidesOf(records, children).map((side, i) => [children[i]!.id, side]))
  for (const { id, place } of records.childrenWithTrashed(topic.id)) {
    if (!hangs(place)) continue
    const side = sides.get(id) ?? 'right'
    change.update('topic', id, { place: { kind: 'arranged', map, parent: root.id, rank: place.rank, side } })
  }
  change.update('topic', topic.id, { opensMap: map, folded: false })
  return { label: `Split off ${named(topic.text)}`, select: [topic.id] }
})

/** Neighbours that become a map together, of which a new topic with its name is the doorway in their place. */
export interface SplitRow {
  row: readonly TopicId[]
  name: string
}

export type SplitPart = SplitOff | SplitRow

/**
 * Moves siblings with their branches into a new child map. Refused where they are not siblings, and as `splitOff` is.
 * O(topics of their branches and their siblings).
 */
export const splitOffRow = command((change, { row, name }: SplitRow) => {
  const {
    select: [doorway],
  } = insertBetween.within(change, { topics: row, text: name })
  splitOff.within(change, { topic: doorway! })
  return { label: `Split off ${named(name)}`, select: [doorway!] }
})

/**
 * Splits off several branches and rows of siblings as one change, those within others from these. `doorways` are the topics
 * that open the new maps, in the order of what was given. Refused as `splitOff` is, and where nothing is given. O(topics of
 * the branches), and of their maps where they are numbered.
 */
export const splitOffAll = command((change, { parts }: { parts: readonly SplitPart[] }) => {
  if (parts.length === 0) refuse('invalid', 'Choose the branches that should become maps of their own.')
  // The deepest first, and rows after what is below their topics: all is then moved once.
  const depth = (part: SplitPart) =>
    'row' in part
      ? levelOf(change.records, change.topic(part.row[0] ?? null)) - 0.5
      : levelOf(change.records, change.topic(part.topic))
  const order = parts.map((part, i) => ({ part, i, depth: depth(part) })).sort((a, b) => b.depth - a.depth)
  const doorways: TopicId[] = []
  for (const { part, i } of order) {
    const { select } = 'row' in part ? splitOffRow.within(change, part) : splitOff.within(change, part)
    doorways[i] = select[0]!
  }
  const label =
    parts.length === 1 ? `Split off ${named(change.topic(doorways[0]!).text)}` : `Split off ${parts.length} branches`
  return { label, select: doorways, doorways }
})
