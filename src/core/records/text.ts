import { z } from 'zod'

/** Longest text of a topic, in UTF-16 code units. */
export const MAX_TOPIC_TEXT = 5_000
/** Longest note, in UTF-16 code units. */
export const MAX_NOTE_TEXT = 1_000_000

/** PostgreSQL stores no NUL, and a lone surrogate cannot be written as UTF-8: both are refused at the border. */
const storable = (text: string) => !text.includes('\u0000') && text.isWellFormed()
const problem = 'The text contains characters that cannot be stored.'

export const storedText = (max: number) => z.string().max(max).refine(storable, problem)
export const title = storedText(500)
