import { z } from 'zod'

/** The fonts in which notes, pages and outlines can be read. */
export const ReadingFont = z.enum(['reading', 'plain', 'hand', 'distinct'])
export type ReadingFont = z.infer<typeof ReadingFont>

/** Bounds of how text is read: size in px, height of a line in parts of the size, room between letters in parts of the size, width of a column in px. */
export const READING_BOUNDS = {
  size: { least: 13, most: 32, step: 1 },
  line: { least: 1.2, most: 2.4, step: 0.1 },
  letters: { least: 0, most: 0.2, step: 0.02 },
  width: { least: 420, most: 1_200, step: 20 },
} as const

const within = ({ least, most }: { least: number; most: number }) => z.number().min(least).max(most)

/** How somebody reads notes, pages and outlines, whatever the look of a map is. */
const Reading = z.strictObject({
  font: ReadingFont,
  size: within(READING_BOUNDS.size),
  line: within(READING_BOUNDS.line),
  letters: within(READING_BOUNDS.letters),
  width: within(READING_BOUNDS.width),
})
export type Reading = z.infer<typeof Reading>

/** Most keys of somebody's own, and the longest name of a key. */
const [MOST_KEYS, LONGEST_KEY] = [200, 40]

/** Whether days can be written with something: what nobody knows would stop every screen on which there is a day. */
function canWriteDays(language: string | undefined, options: Intl.DateTimeFormatOptions): boolean {
  try {
    new Intl.DateTimeFormat(language, options)
    return true
  } catch (error) {
    if (error instanceof RangeError) return false
    throw error
  }
}

/** What somebody has set for themselves, on every computer: it alters no map and nobody else's screen. */
export const PersonalSettings = z.strictObject({
  scheme: z.enum(['auto', 'light', 'dark']),
  reading: Reading,
  /** Whether plus signs stand at a selected topic. */
  plusSigns: z.boolean(),
  /** Whether what a letter typed on a selected topic begins stands behind its words, or in their place. */
  typing: z.enum(['behind', 'instead']),
  /** Whether things move: as the system says, or less. */
  motion: z.enum(['auto', 'less']),
  /** The first day of a week, Sunday is 0; null is that of the language. */
  weekBegins: z.union([z.literal(0), z.literal(1), z.literal(6)]).nullable(),
  /** Of the IANA data base; null is that of the computer. */
  timeZone: z
    .string()
    .max(100)
    .refine((timeZone) => canWriteDays(undefined, { timeZone }), 'No such time zone is known.')
    .nullable(),
  /** In which language days are written, as BCP 47; null is that of the browser. */
  dateLanguage: z
    .string()
    .max(40)
    .refine((language) => canWriteDays(language, {}), 'This is no language that can be written.')
    .nullable(),
  /** Keys of one's own, by the name of their act. */
  keys: z
    .record(z.string().max(100), z.string().max(LONGEST_KEY))
    .refine((keys) => Object.keys(keys).length <= MOST_KEYS, 'There are too many keys of your own.'),
})
export type PersonalSettings = z.infer<typeof PersonalSettings>

/** What holds for who has set nothing. */
export const PLAIN_SETTINGS: PersonalSettings = {
  scheme: 'auto',
  reading: { font: 'reading', size: 16, line: 1.6, letters: 0, width: 680 },
  plusSigns: true,
  typing: 'behind',
  motion: 'auto',
  weekBegins: null,
  timeZone: null,
  dateLanguage: null,
  keys: {},
}

/**
 * Settings as they were stored, perhaps by another version: each that is not understood, or missing, is as for who has set nothing.
 * Takes anything and never throws.
 */
export function readSettings(stored: unknown): PersonalSettings {
  const given = z.record(z.string(), z.unknown()).safeParse(stored).data ?? {}
  const read = { ...PLAIN_SETTINGS }
  for (const [name, schema] of Object.entries(PersonalSettings.shape)) {
    const value = schema.safeParse(given[name])
    if (value.success) Object.assign(read, { [name]: value.data })
  }
  return read
}
