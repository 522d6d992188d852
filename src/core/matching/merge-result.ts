import type { MapId, TopicId } from '../records/ids'
import { parentOf } from '../records/place'
import type { Records } from '../records/records'
import { topicsInOrder } from '../tree/walk'
import type { MergePlan } from './decisions'

/** A topic of the map that a merge would make. */
export interface ResultTopic {
  /** Of the topic of the target, or of that of which it is a copy. */
  id: TopicId
  text: string
  level: number
  /** The maps that it comes from: more than one where topics are joined. */
  from: MapId[]
}

interface Node {
  id: TopicId
  text: string
  from: MapId[]
  below: Node[]
}

/**
 * What a plan would make of its target, in reading order; `told` says what topics of the sources say, and on which map they stand.
 * The records hold the target. O(topics).
 */
export function mergeResult(
  records: Records,
  { target, decisions }: Pick<MergePlan, 'target' | 'decisions'>,
  told: (topic: TopicId) => { text: string; map: MapId },
): ResultTopic[] {
  const nodes = new Map<TopicId, Node>()
  let root: Node | null = null
  for (const topic of topicsInOrder(records, target)) {
    const node: Node = { id: topic.id, text: topic.text, from: [target], below: [] }
    nodes.set(topic.id, node)
    const above = nodes.get(parentOf(topic) ?? topic.id)
    if (root === null) root = node
    else (above === node ? root : (above ?? root)).below.push(node)
  }
  for (const decision of decisions) {
    if (decision.act === 'leave') continue
    const { text, map } = told(decision.source)
    if (decision.act === 'join') {
      const node = nodes.get(decision.into)
      if (!node) continue
      if (!node.from.includes(map)) node.from.push(map)
      if (decision.choice?.text) node.text = decision.choice.text
      else if (decision.choice?.takes.includes('text')) node.text = text
      nodes.set(decision.source, node)
    } else {
      const { below } = decision
      const node: Node = { id: decision.source, text, from: [map], below: [] }
      nodes.set(decision.source, node)
      ;(nodes.get(typeof below === 'string' ? below : below.copyOf) ?? root)?.below.push(node)
    }
  }
  const rows: ResultTopic[] = []
  const waiting = root ? [{ node: root, level: 0 }] : []
  for (let at = waiting.pop(); at; at = waiting.pop()) {
    const { id, text, from, below } = at.node
    rows.push({ id, text, level: at.level, from })
    for (let i = below.length - 1; i >= 0; i--) waiting.push({ node: below[i]!, level: at.level + 1 })
  }
  return rows
}
