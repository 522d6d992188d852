import type { TopicRecord } from '../records/topic'
import type { NewChange } from './command'
import { lead } from './crosslinks'

/** Web links, files, comments and cross-links of one topic go over to another; a link between the two goes into the trash. */
export function moveBelongings(change: NewChange, from: TopicRecord, to: TopicRecord): void {
  const { records } = change
  for (const link of records.weblinks(from.id)) change.update('weblink', link.id, { topic: to.id })
  for (const attachment of records.attachments(from.id)) change.update('attachment', attachment.id, { topic: to.id })
  for (const comment of records.comments(from.id)) change.update('comment', comment.id, { topic: to.id })
  for (const link of records.crosslinksFrom(from.id)) lead(change, link, { from: to.id })
  for (const link of records.crosslinksTo('topic', from.id)) lead(change, link, { to: { kind: 'topic', id: to.id } })
}
