import { z } from 'zod'

/** Longest text of a topic, in UTF-16 code units. */
export const MAX_TOPIC_TEXT = 5_000
/** Longest note, in UTF-16 code units. */
export const MAX_NOTE_TEXT = 1_000_000
/** Longest title or name, in UTF-16 code units. */
export const MAX_TITLE = 500

/** PostgreSQL stores no NUL, and a lone surrogate cannot be written as UTF-8: both are refused at the border. */
const isStorable = (text: string) => !text.includes('\u0000') && text.isWellFormed()

/** Any text that people give: every field that holds one is made with this. */
export const storedText = (max: number) =>
  z.string().max(max).refine(isStorable, 'The text contains characters that cannot be stored.')
export const title = storedText(MAX_TITLE)

/** A text in which what cannot be stored is replaced, for texts that are read from elsewhere. */
export const storable = (text: string): string => text.replaceAll('\u0000', '\ufffd').toWellFormed()

/** At most `most` code units of a text, never half a sign: cut before the one that would not fit whole. */
export function cutText(text: string, most: number): string {
  if (text.length <= most) return text
  let end = 0
  for (const { index, segment } of graphemes.segment(text.slice(0, most + 64))) {
    if (index + segment.length > most) break
    end = index + segment.length
  }
  return text.slice(0, end === 0 ? most : end).toWellFormed()
}
const graphemes = new Intl.Segmenter('und', { granularity: 'grapheme' })
