import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { isPlacedByHand, isRoot, type Side, type TopicRecord } from '../records/topic'
import { branch } from '../tree/walk'
import { Draft, type Making, named, type Outcome } from './command'
import { hasSides } from './layouts'
import { headsOnly } from './move-topics'

/** A point of the map for the upper left corner of a topic, seen from the middle of the root, in map units. */
interface Point {
  x: number
  y: number
}

/**
 * Keeps a topic at a point of the map, whatever is around it: it stays where it hangs. `side` is the side of its parent
 * on which that point lies, for parents that share their children out.
 */
export function placeByHand(
  records: Records,
  args: { topic: TopicId; at: Point; side: Side },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  if (isRoot(topic)) refuse('root', 'The root of a map stays in its middle.')
  const parent = records.get('topic', topic.place.parent)
  const side = parent && hasSides(parent) ? args.side : topic.place.side
  draft.update('topic', topic.id, { place: { ...topic.place, side, ...args.at } })
  return draft.outcome(`Place ${named(topic.text)} by hand`, [topic.id])
}

/** Lets topics that were placed by hand fall back into order: these, and all below them. */
export function arrangeAgain(records: Records, args: { topics: TopicId[] }, making: Making): Outcome {
  const heads = args.topics.flatMap((id) => records.get('topic', id) ?? [])
  return arranged(records, heads, making)
}

/** Lets everything on a map fall back into order; loose branches stay where they are. */
export function arrangeMap(records: Records, args: { map: MapId }, making: Making): Outcome {
  const root = records.root(args.map) ?? refuse('gone', 'This map is gone.')
  return arranged(records, [root, ...records.looseBranches(args.map)], making)
}

function arranged(records: Records, heads: readonly TopicRecord[], making: Making): Outcome {
  const draft = new Draft(records, making)
  const placed = new Set<TopicRecord>()
  for (const head of heads) for (const topic of branch(records, head)) if (isPlacedByHand(topic)) placed.add(topic)
  if (placed.size === 0) refuse('invalid', 'Nothing here was placed by hand.')
  for (const topic of placed) draft.update('topic', topic.id, { place: { ...topic.place, x: null, y: null } })
  const [first] = placed
  const what = placed.size === 1 ? named(first!.text) : `${placed.size} topics`
  return draft.outcome(
    `Arrange ${what} again`,
    heads.map(({ id }) => id),
  )
}

/** Takes branches off their parents: each stands alone as a loose branch, at its own point. */
export function detachTopics(
  records: Records,
  args: { topics: { topic: TopicId; at: Point }[] },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const points = new Map(args.topics.map(({ topic, at }) => [topic, at]))
  const heads = headsOnly(
    records,
    args.topics.map(({ topic }) => topic),
  )
  if (heads.length === 0) refuse('gone', 'There is nothing to detach.')
  if (heads.some(isRoot)) refuse('root', 'The root of a map stays in its middle.')
  for (const topic of heads) {
    const place = { ...topic.place, parent: null, side: null, ...points.get(topic.id)! }
    draft.update('topic', topic.id, { place })
  }
  const what = heads.length === 1 ? named(heads[0]!.text) : `${heads.length} branches`
  return draft.outcome(
    `Detach ${what}`,
    heads.map(({ id }) => id),
  )
}
