import type { CrosslinkRecord } from '../records/crosslink'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { branch } from '../tree/walk'
import { incomingAt } from './crosslinks'

/**
 * Cross-links from elsewhere that lead into branches: they lead nowhere while these lie in the trash. As far as the records are
 * held. O(topics of the branches, with the links that arrive there).
 */
export function linksInto(records: Records, heads: readonly TopicRecord[]): CrosslinkRecord[] {
  const inside = new Set<string>()
  for (const head of heads) for (const { id } of branch(records, head)) inside.add(id)
  const found = new Map<string, CrosslinkRecord>()
  for (const id of inside)
    for (const link of incomingAt(records, records.need('topic', id)))
      if (!inside.has(link.from)) found.set(link.id, link)
  return [...found.values()]
}
