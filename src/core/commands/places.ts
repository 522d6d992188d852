import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import { arranged, hangs, isPlacedByHand, isRoot, type Point, type Side } from '../records/place'
import type { TopicRecord } from '../records/topic'
import { isFree } from '../tree/free'
import { branch } from '../tree/walk'
import { command, type Done, type NewChange, named, namedAll } from './command'
import { headsOnly } from './move-topics'
import { hasSides } from './sides'

/**
 * Keeps topics at points of the map, whatever is around them: they stay where they hang. `side` is the side of its parent on which
 * that point lies, for parents that share their children out; `from` where it was seen before, so that what hangs on it with a
 * place of its own comes along. Refused where a topic is gone, and for roots. O(topics below).
 */
export const placeByHand = command(
  (change, args: { topics: readonly { topic: TopicId; at: Point; side: Side; from?: Point }[] }) => {
    const given = new Map(args.topics.map((one) => [one.topic, one]))
    const heads = headsOnly(change.records, [...given.keys()])
    if (heads.length === 0) refuse('gone', 'This topic is gone.')
    if (heads.some(isRoot)) refuse('root', 'The root of a map stays in its middle.')
    for (const head of heads) {
      const { at, side, from } = given.get(head.id)!
      if (from) bringAlong(change, head, { x: at.x - from.x, y: at.y - from.y })
      placeAt(change, head, at, side)
    }
    return { label: `Place ${namedAll(heads)} by hand`, select: heads.map(({ id }) => id) }
  },
)

function placeAt(change: NewChange, { id, place }: TopicRecord, at: Point, side: Side): void {
  if (hangs(place)) {
    const { map, parent, rank } = place
    const own = hasSides(change.topic(parent)) ? side : place.side
    change.update('topic', id, { place: { kind: 'by hand', map, parent, rank, side: own, x: at.x, y: at.y } })
  } else change.update('topic', id, { place: { kind: 'loose', map: place.map, x: at.x, y: at.y } })
}

/** Moves what hangs below a topic with a place of its own as that was moved. */
function bringAlong(change: NewChange, head: TopicRecord, by: Point): void {
  for (const topic of [...branch(change.records, head)]) {
    const { place } = topic
    if (place.kind === 'by hand' && topic.id !== head.id)
      change.update('topic', topic.id, { place: { ...place, x: place.x + by.x, y: place.y + by.y } })
  }
}

/**
 * Lets everything below a topic, at a root everything on the map, keep the place it has; or, again, be arranged. The places
 * themselves are given by whoever lays the map out: see `core/free`. Refused where the topic is gone. O(topics below).
 */
export const setFree = command((change, args: { topic: TopicId; free: boolean }) => {
  const topic = change.topic(args.topic)
  change.update('topic', topic.id, { free: args.free })
  const what = isRoot(topic) ? 'on the map' : `below ${named(topic.text)}`
  const select = [topic.id]
  if (args.free) return { label: `Keep every place ${what}`, select }
  const heads = isRoot(topic) ? [topic, ...change.records.looseBranches(topic.place.map)] : [topic]
  for (const head of heads)
    for (const below of [...branch(change.records, head)])
      if (below.id !== topic.id && isPlacedByHand(below) && !isFree(change.records, below))
        change.update('topic', below.id, { place: arranged(below.place) })
  return { label: `Arrange everything ${what}`, select }
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
