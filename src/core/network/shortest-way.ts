import type { TopicId } from '../records/ids'
import { isRoot, parentOf } from '../records/place'
import type { Records } from '../records/records'
import { isInTrash } from '../tree/walk'
import { topicsAtEnd } from './crosslinks'

/** How one topic leads to the next: from parent to child, by a cross-link, or through a doorway; or the other way. */
export type Tie = 'branch' | 'crosslink' | 'doorway'

/** A topic on a way, and how the one before it leads here; nothing leads to the first. */
export interface WayPoint {
  topic: TopicId
  by: Tie | null
}

/**
 * The shortest way between two topics of a collection, each step along a branch, a cross-link in either direction, or a
 * doorway and the root behind it; null where there is none. `isOpen` leaves out maps that may not be read. Breadth first,
 * linear in topics and links.
 */
export function shortestWay(
  records: Records,
  from: TopicId,
  to: TopicId,
  isOpen: (map: string) => boolean = () => true,
): WayPoint[] | null {
  const before = new Map<TopicId, { topic: TopicId; by: Tie } | null>([[from, null]])
  const waiting: TopicId[] = [from]
  for (const at of waiting) {
    if (at === to) return chain(before, to)
    for (const [topic, by] of tiesOf(records, at)) {
      const record = records.get('topic', topic)
      if (!record || before.has(topic) || !isOpen(record.place.map) || isInTrash(records, record)) continue
      before.set(topic, { topic: at, by })
      waiting.push(topic)
    }
  }
  return null
}

function chain(before: ReadonlyMap<TopicId, { topic: TopicId; by: Tie } | null>, to: TopicId): WayPoint[] {
  const way: WayPoint[] = []
  for (let at: TopicId | null = to; at !== null; ) {
    const step: { topic: TopicId; by: Tie } | null = before.get(at) ?? null
    way.push({ topic: at, by: step?.by ?? null })
    at = step?.topic ?? null
  }
  return way.reverse()
}

/** Where one can go from a topic. */
function* tiesOf(records: Records, id: TopicId): Generator<[TopicId, Tie]> {
  const topic = records.need('topic', id)
  const parent = parentOf(topic)
  if (parent) yield [parent, 'branch']
  for (const child of records.children(id)) yield [child.id, 'branch']
  for (const link of records.crosslinksFrom(id)) {
    if (link.to.kind === 'map') {
      const root = records.root(link.to.id)
      if (root) yield [root.id, 'crosslink']
    } else for (const end of topicsAtEnd(records, link)) yield [end.id, 'crosslink']
  }
  for (const link of records.crosslinksTo('topic', id)) yield [link.from, 'crosslink']
  for (const { id: enclosure } of records.enclosuresOf(id))
    for (const link of records.crosslinksTo('enclosure', enclosure)) yield [link.from, 'crosslink']
  const root = topic.opensMap && !records.get('map', topic.opensMap)?.trashed && records.root(topic.opensMap)
  if (root) yield [root.id, 'doorway']
  if (isRoot(topic)) for (const doorway of records.doorwaysTo(topic.place.map)) yield [doorway.id, 'doorway']
}
