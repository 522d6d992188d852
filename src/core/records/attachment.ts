import { z } from 'zod'
import { AttachmentId, FileId, TopicId } from './ids'
import { Rank } from './topic'

/** A file hung onto a topic. One file can hang on several topics. */
export const AttachmentRecord = z.strictObject({
  id: AttachmentId,
  topic: TopicId,
  file: FileId,
  rank: Rank,
  trashed: z.boolean(),
})
export type AttachmentRecord = z.infer<typeof AttachmentRecord>
