import { z } from 'zod'
import { EnclosureId, TopicId } from './ids'
import { defineKind, inside } from './kind'
import { Colour } from './look'
import { MAX_NOTE_TEXT, storedText, title } from './text'

/** Most topics that one enclosure names; what hangs below them is inside as well. */
const MAX_ENCLOSED = 500

/** How the frame is drawn: what is left out is as usual. */
export const EnclosureLook = z
  .strictObject({
    /** Laid over the paper so thinly that what is inside stays readable. */
    fill: Colour,
    line: z.enum(['thin', 'strong', 'dashed', 'none']),
    corners: z.enum(['round', 'square', 'sketch']),
  })
  .partial()
export type EnclosureLook = z.infer<typeof EnclosureLook>

/** The frame around a branch, or around several neighbours, with an optional title. Enclosures may stand inside one another. */
export const EnclosureRecord = z.strictObject({
  id: EnclosureId,
  /** Heads of the enclosed branches: neighbouring siblings. The first one decides where the enclosure belongs. */
  topics: z.array(TopicId).min(1).max(MAX_ENCLOSED),
  title,
  /** CommonMark. Empty where there is none. */
  note: storedText(MAX_NOTE_TEXT),
  /** Which of the eight tones; null takes that of the branch. */
  tone: z.number().int().min(0).max(7).nullable(),
  look: EnclosureLook.nullable(),
  trashed: z.boolean(),
})
export type EnclosureRecord = z.infer<typeof EnclosureRecord>

export const enclosureKind = defineKind(EnclosureRecord, {
  references: [inside('topics.*', 'topic', 'A topic of this enclosure')],
  joins: { topics: 'elements', note: 'paragraphs', look: 'properties' },
})
