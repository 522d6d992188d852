import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { ancestors, topicsInOrder } from '../tree/walk'
import { Draft, type Making, named, type Outcome } from './command'

/** Hides or shows what hangs below topics. */
export function foldTopics(records: Records, args: { topics: TopicId[]; folded: boolean }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topics = args.topics.flatMap((id) => records.get('topic', id) ?? [])
  const first = topics[0] ?? refuse('gone', 'This topic is gone.')
  for (const topic of topics) draft.update('topic', topic.id, { folded: args.folded })
  return draft.outcome(`${args.folded ? 'Fold' : 'Unfold'} ${named(first.text)}`, args.topics)
}

/** Folds and unfolds a map so that it shows `level` levels below its root, and nothing deeper; null unfolds everything. */
export function foldToLevel(records: Records, args: { map: MapId; level: number | null }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const levels = new Map<string, number>()
  for (const topic of topicsInOrder(records, args.map)) {
    const level = topic.place.parent ? levels.get(topic.place.parent)! + 1 : 0
    levels.set(topic.id, level)
    const folded = args.level !== null && level >= args.level && level > 0 && records.children(topic.id).length > 0
    if (topic.folded !== folded) draft.update('topic', topic.id, { folded })
  }
  return draft.outcome(args.level === null ? 'Unfold everything' : `Fold to level ${args.level}`)
}

/** Folds everything but the way from the root to a topic, and what hangs on the topic itself. */
export function foldAllBut(records: Records, args: { topic: TopicId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const way = new Set<string>([topic.id, ...[...ancestors(records, topic)].map(({ id }) => id)])
  const inside = new Set<string>([topic.id])
  for (const other of topicsInOrder(records, topic.place.map)) {
    if (other.place.parent && inside.has(other.place.parent)) inside.add(other.id)
    const open = way.has(other.id) || inside.has(other.id) || other.place.parent === null
    const folded = !open && records.children(other.id).length > 0
    if (other.folded !== folded && (folded || way.has(other.id))) draft.update('topic', other.id, { folded })
  }
  return draft.outcome(`Fold all but the way to ${named(topic.text)}`, [topic.id])
}
