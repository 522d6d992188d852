import { z } from 'zod'
import { NoteId } from './ids'
import { defineKind, names } from './kind'
import { MAX_NOTE_TEXT, storedText } from './text'

/** Text of any length, CommonMark with tables, task lists and strikethrough. Several topics can carry the same note. */
export const NoteRecord = z.strictObject({
  id: NoteId,
  text: storedText(MAX_NOTE_TEXT),
  /** The note that took this one's text over, where two were begun on one topic at once; what is still written here goes there. */
  joinedInto: NoteId.nullable(),
  trashed: z.boolean(),
})
export type NoteRecord = z.infer<typeof NoteRecord>

export const noteKind = defineKind(NoteRecord, {
  references: [names('joinedInto', 'note', 'The note that took this one over')],
  joins: { text: 'paragraphs' },
})
