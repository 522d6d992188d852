import { parentOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { branch, topicsInOrder } from '../tree/walk'
import type { TextTree } from './match-maps'

/**
 * A map as a tree of texts, its loose branches as if they hung on the root, with its topics by node; or only the branch of `head`.
 * Linear.
 */
export function textTreeOf(
  records: Records,
  map: string,
  head?: TopicRecord,
): { tree: TextTree; topics: readonly TopicRecord[] } {
  const topics = head ? [...branch(records, head)] : [...topicsInOrder(records, map)]
  const nodes = new Map<string | null, number>(topics.map(({ id }, node) => [id, node]))
  const parents = topics.map((topic, node) => (node === 0 ? -1 : (nodes.get(parentOf(topic)) ?? 0)))
  return { tree: { texts: topics.map(({ text }) => text), parents }, topics }
}
