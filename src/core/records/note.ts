import { z } from 'zod'
import { NoteId } from './ids'
import { MAX_NOTE_TEXT, storedText } from './text'

/** Text of any length, CommonMark with tables, task lists and strikethrough. Several topics can carry the same note. */
export const NoteRecord = z.strictObject({
  id: NoteId,
  text: storedText(MAX_NOTE_TEXT),
  trashed: z.boolean(),
})
export type NoteRecord = z.infer<typeof NoteRecord>
