import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import { hangs } from '../records/place'
import { ancestors, topicsInOrder } from '../tree/walk'
import { command, named } from './command'

/** Hides or shows what hangs below topics. Refused where all of them are gone. */
export const foldTopics = command((change, args: { topics: readonly TopicId[]; folded: boolean }) => {
  const topics = args.topics.flatMap((id) => change.records.get('topic', id) ?? [])
  const first = topics[0] ?? refuse('gone', 'This topic is gone.')
  for (const topic of topics) change.update('topic', topic.id, { folded: args.folded })
  return { label: `${args.folded ? 'Fold' : 'Unfold'} ${named(first.text)}`, select: [...args.topics] }
})

/**
 * Folds and unfolds a map so that it shows `level` levels below its root, and nothing deeper; null unfolds
 * everything. O(topics of the map).
 */
export const foldToLevel = command((change, args: { map: MapId; level: number | null }) => {
  const levels = new Map<string, number>()
  for (const { id, place, folded: was } of topicsInOrder(change.records, args.map)) {
    const level = hangs(place) ? levels.get(place.parent)! + 1 : 0
    levels.set(id, level)
    const folded = args.level !== null && level >= args.level && level > 0 && change.records.children(id).length > 0
    if (was !== folded) change.update('topic', id, { folded })
  }
  return { label: args.level === null ? 'Unfold everything' : `Fold to level ${args.level}`, select: [] }
})

/**
 * Folds everything but the way from the root to a topic, and what hangs on the topic itself. Refused where it is
 * gone. O(topics of the map).
 */
export const foldAllBut = command((change, args: { topic: TopicId }) => {
  const { records } = change
  const topic = change.topic(args.topic)
  const way = new Set<string>([topic.id, ...[...ancestors(records, topic)].map(({ id }) => id)])
  const inside = new Set<string>([topic.id])
  for (const { id, place, folded: was } of topicsInOrder(records, topic.place.map)) {
    if (hangs(place) && inside.has(place.parent)) inside.add(id)
    const open = way.has(id) || inside.has(id) || !hangs(place)
    const folded = !open && records.children(id).length > 0
    if (was !== folded && (folded || way.has(id))) change.update('topic', id, { folded })
  }
  return { label: `Fold all but the way to ${named(topic.text)}`, select: [topic.id] }
})
