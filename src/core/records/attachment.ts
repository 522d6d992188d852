import { z } from 'zod'
import { AttachmentId, FileId, TopicId } from './ids'
import { carries, defineKind, inside } from './kind'
import { Rank } from './place'

/** So many earlier versions of a file are kept. */
export const MOST_VERSIONS = 50

/** A file hung onto a topic. One file can hang on several topics. */
const AttachmentRecord = z.strictObject({
  id: AttachmentId,
  topic: TopicId,
  file: FileId,
  rank: Rank,
  /** Whether somebody has read it and said so. */
  read: z.boolean().default(false),
  /** The files in whose place it came, the newest first. */
  earlier: z.array(FileId).max(MOST_VERSIONS).default([]),
  trashed: z.boolean(),
})
type AttachmentRecord = z.infer<typeof AttachmentRecord>

/** A file that was just hung onto a topic, and is still to be read. */
export const newAttachment = (fields: Pick<AttachmentRecord, 'id' | 'topic' | 'file' | 'rank'>): AttachmentRecord => ({
  ...fields,
  read: false,
  earlier: [],
  trashed: false,
})

export const attachmentKind = defineKind(AttachmentRecord, {
  references: [
    inside('topic', 'topic', 'The topic of this file'),
    carries('file', 'file', 'The file'),
    carries('earlier.*', 'file', 'An earlier version'),
  ],
})
