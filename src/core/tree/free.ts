import { isRoot } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { ancestors } from './walk'

/**
 * Whether a topic stands where a person put it and nothing moves it but to avoid an overlap: its map is free, or a branch that it is
 * in. Not the head of a free branch itself. O(depth).
 */
export function isFree(records: Records, topic: TopicRecord): boolean {
  if (isRoot(topic)) return false
  if (records.root(topic.place.map)?.free) return true
  for (const above of ancestors(records, topic)) if (above.free) return true
  return false
}
