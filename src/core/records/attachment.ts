import { z } from 'zod'
import { AttachmentId, FileId, TopicId } from './ids'
import { carries, defineKind, inside } from './kind'
import { Rank } from './place'

/** A file hung onto a topic. One file can hang on several topics. */
const AttachmentRecord = z.strictObject({
  id: AttachmentId,
  topic: TopicId,
  file: FileId,
  rank: Rank,
  trashed: z.boolean(),
})
export const attachmentKind = defineKind(AttachmentRecord, {
  references: [inside('topic', 'topic', 'The topic of this file'), carries('file', 'file', 'The file')],
})
