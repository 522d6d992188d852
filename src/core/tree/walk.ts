import { parentOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'

/** The topic and all below it in reading order, without what is in the trash. Iterative: depth is no limit. */
export function* branch(records: Records, head: TopicRecord): Generator<TopicRecord> {
  const waiting = [head]
  for (let topic = waiting.pop(); topic; topic = waiting.pop()) {
    yield topic
    const children = records.children(topic.id)
    for (let i = children.length - 1; i >= 0; i--) waiting.push(children[i]!)
  }
}

/** Like `branch`, but with trashed topics: what moves when the branch moves. */
export function* branchWithTrashed(records: Records, head: TopicRecord): Generator<TopicRecord> {
  const waiting = [head]
  for (let topic = waiting.pop(); topic; topic = waiting.pop()) {
    yield topic
    const children = records.childrenWithTrashed(topic.id)
    for (let i = children.length - 1; i >= 0; i--) waiting.push(children[i]!)
  }
}

/** Every topic of a map that is not in the trash: the root's branch, then the loose branches. */
export function* topicsInOrder(records: Records, map: string): Generator<TopicRecord> {
  const root = records.root(map)
  if (root) yield* branch(records, root)
  for (const head of records.looseBranches(map)) yield* branch(records, head)
}

/** From the topic's parent up to the head of its branch. Ends at a topic that is not held, and never loops. */
export function* ancestors(records: Records, topic: TopicRecord): Generator<TopicRecord> {
  const seen = new Set<string>([topic.id])
  for (let above = records.get('topic', parentOf(topic)); above; above = records.get('topic', parentOf(above))) {
    if (seen.has(above.id)) return
    seen.add(above.id)
    yield above
  }
}

/** Whether the topic, or one above it, lies in the trash, or its map does. */
export function isInTrash(records: Records, topic: TopicRecord): boolean {
  if (topic.trashed || records.get('map', topic.place.map)?.trashed) return true
  for (const above of ancestors(records, topic)) if (above.trashed) return true
  return false
}

/** How far below its head a topic stands: 0 for a root and for the head of a loose branch. */
export function levelOf(records: Records, topic: TopicRecord): number {
  let level = 0
  for (const _ of ancestors(records, topic)) level++
  return level
}
