import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import { arranged, hangs, isPlacedByHand, isRoot, type Point, type Side } from '../records/place'
import type { TopicRecord } from '../records/topic'
import { branch } from '../tree/walk'
import { command, type Done, type NewChange, named, namedAll } from './command'
import { headsOnly } from './move-topics'
import { hasSides } from './sides'

/**
 * Keeps a topic at a point of the map, whatever is around it: it stays where it hangs. `side` is the side of its parent
 * on which that point lies, for parents that share their children out. Refused where the topic is gone, and for roots.
 */
export const placeByHand = command((change, args: { topic: TopicId; at: Point; side: Side }) => {
  const topic = change.topic(args.topic)
  const { place } = topic
  if (isRoot(topic)) refuse('root', 'The root of a map stays in its middle.')
  if (hangs(place)) {
    const { map, parent, rank } = place
    const side = hasSides(change.topic(parent)) ? args.side : place.side
    change.update('topic', topic.id, { place: { kind: 'by hand', map, parent, rank, side, ...args.at } })
  } else change.update('topic', topic.id, { place: { kind: 'loose', map: place.map, ...args.at } })
  return { label: `Place ${named(topic.text)} by hand`, select: [topic.id] }
})

/**
 * Lets topics that were placed by hand fall back into order: these, and all below them. Refused where none of them
 * was placed by hand. O(topics below).
 */
export const arrangeAgain = command((change, args: { topics: readonly TopicId[] }) =>
  arrangeBelow(
    change,
    args.topics.flatMap((id) => change.records.get('topic', id) ?? []),
  ),
)

/**
 * Lets everything on a map fall back into order; loose branches stay where they are. Refused where the map is gone,
 * or nothing on it was placed by hand. O(topics of the map).
 */
export const arrangeMap = command((change, args: { map: MapId }) => {
  const root = change.records.root(args.map) ?? refuse('gone', 'This map is gone.')
  return arrangeBelow(change, [root, ...change.records.looseBranches(args.map)])
})

function arrangeBelow(change: NewChange, heads: readonly TopicRecord[]): Done {
  const placed = new Map<string, TopicRecord>()
  for (const head of heads)
    for (const topic of branch(change.records, head)) if (isPlacedByHand(topic)) placed.set(topic.id, topic)
  if (placed.size === 0) refuse('invalid', 'Nothing here was placed by hand.')
  for (const { id, place } of placed.values()) change.update('topic', id, { place: arranged(place) })
  return { label: `Arrange ${namedAll([...placed.values()])} again`, select: heads.map(({ id }) => id) }
}

/**
 * Takes branches off their parents: each stands alone as a loose branch, at its own point. Refused where all are
 * gone, and for roots. O(topics given).
 */
export const detachTopics = command((change, args: { topics: readonly { topic: TopicId; at: Point }[] }) => {
  const points = new Map(args.topics.map(({ topic, at }) => [topic, at]))
  const heads = headsOnly(change.records, [...points.keys()])
  if (heads.length === 0) refuse('gone', 'There is nothing to detach.')
  if (heads.some(isRoot)) refuse('root', 'The root of a map stays in its middle.')
  for (const { id, place } of heads)
    change.update('topic', id, { place: { kind: 'loose', map: place.map, ...points.get(id)! } })
  return { label: `Detach ${namedAll(heads, 'branches')}`, select: heads.map(({ id }) => id) }
})
