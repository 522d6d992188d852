import type { TopicId } from '../records/ids'
import type { TopicRecord } from '../records/topic'
import type { Draft } from './command'

/** Web links, files and cross-links of one topic go over to another; a link between the two goes into the trash. */
export function moveBelongings(draft: Draft, from: TopicRecord, to: TopicRecord): void {
  const { records } = draft
  for (const link of records.weblinks(from.id)) draft.update('weblink', link.id, { topic: to.id })
  for (const attachment of records.attachments(from.id)) draft.update('attachment', attachment.id, { topic: to.id })
  const moved = <End extends TopicId | null>(end: End) => (end === from.id ? to.id : end)
  for (const link of [...records.crosslinksFrom(from.id), ...records.crosslinksTo(from.id)]) {
    const ends = { from: moved(link.from), toTopic: moved(link.toTopic) }
    if (ends.from === ends.toTopic) draft.update('crosslink', link.id, { trashed: true })
    else draft.update('crosslink', link.id, ends)
  }
}
