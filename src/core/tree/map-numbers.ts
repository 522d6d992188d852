import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { type Numbering, numberingBelow, numbersOf } from './numbering'

/** The numbers of a map's topics, computed and fixed ones, by topic. Topics without a number are left out. Linear. */
export function mapNumbers(records: Records, map: string): Map<string, string> {
  const found = new Map<string, string>()
  const root = records.root(map)
  const scheme = records.get('map', map)?.numbering ?? null
  const waiting: { topic: TopicRecord; below: Numbering | null }[] = records
    .looseBranches(map)
    .map((head) => ({ topic: head, below: numberingBelow(head, head.number, null) }))
  for (const { topic } of waiting) if (topic.number) found.set(topic.id, topic.number)
  if (root) waiting.push({ topic: root, below: numberingBelow(root, root.number, scheme && { scheme, above: '' }) })
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const children = records.children(next.topic.id)
    numbersOf(children, next.below).forEach((number, i) => {
      const child = children[i]!
      if (number) found.set(child.id, number)
      waiting.push({ topic: child, below: numberingBelow(child, number, next.below) })
    })
  }
  return found
}
