import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'

/** Addresses of our own wherever they stand in a note, as the database finds them too; see db/migrations. */
const OWN = /folvet:(?:topic|map|file)\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})/g

/** The ids to which a note leads. Linear. */
export const linkedIn = (text: string): Set<string> =>
  text.includes('folvet:') ? new Set([...text.matchAll(OWN)].map(([, id]) => id!)) : new Set()

/** By the id of what they lead to, the topics whose notes do, by their ids. Linear in the notes. */
export function noteLinks(records: Records): Map<string, TopicId[]> {
  const from = new Map<string, TopicId[]>()
  for (const note of records.all('note')) {
    const linked = note.trashed ? new Set<string>() : linkedIn(note.text)
    if (linked.size === 0) continue
    const carriers = records.carriersOf(note.id).map(({ id }) => id)
    for (const id of linked) from.set(id, [...(from.get(id) ?? []), ...carriers])
  }
  for (const [id, topics] of from) from.set(id, [...new Set(topics)].sort())
  return from
}
