import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { type OutlineItem, outlineItem } from './outline'

/** The branch as an outline without ids: what is copied, exported and read aloud. Trashed topics are left out. */
export function outlineOf(records: Records, head: TopicRecord): OutlineItem {
  const top = outlineItem(head.text)
  const waiting: [TopicRecord, OutlineItem][] = [[head, top]]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const [topic, item] = next
    item.note = records.get('note', topic.note)?.text ?? ''
    item.links = records.weblinks(topic.id).map((link) => ({ address: link.url, title: link.title }))
    for (const child of records.children(topic.id)) {
      const below = outlineItem(child.text)
      item.children.push(below)
      waiting.push([child, below])
    }
  }
  return top
}
