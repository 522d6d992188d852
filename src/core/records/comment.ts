import { z } from 'zod'
import { CommentId, PersonId, TopicId } from './ids'
import { defineKind, inside, names } from './kind'
import { storedText, title } from './text'

/** Longest comment, in UTF-16 code units, and most people that one names. */
export const MAX_COMMENT = 5_000
export const MOST_MENTIONED = 30

/** What somebody says about a topic, or about some words of its note, for those who work on it: it is not published. */
export const CommentRecord = z.strictObject({
  id: CommentId,
  topic: TopicId,
  /** The comment with which its thread began; null for that one. */
  answers: CommentId.nullable(),
  /** Who said it; null where it was brought in from elsewhere. The server writes who it was, under which name and when. */
  author: PersonId.nullable(),
  authorName: storedText(200),
  /** UTC instant in ISO 8601. */
  at: z.iso.datetime(),
  text: storedText(MAX_COMMENT).min(1),
  /** The words of the note that it is about; empty where it is about the topic. */
  quote: title,
  /** People whom it names. */
  mentions: z.array(PersonId).max(MOST_MENTIONED),
  /** Whether what its thread was about is settled. */
  resolved: z.boolean(),
  trashed: z.boolean(),
})
export type CommentRecord = z.infer<typeof CommentRecord>

export const commentKind = defineKind(CommentRecord, {
  references: [
    inside('topic', 'topic', 'The topic of this comment', { copied: false }),
    names('answers', 'comment', 'The comment that this one answers'),
  ],
})
