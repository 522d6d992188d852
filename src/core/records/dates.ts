import { z } from 'zod'
import { PersonId } from './ids'
import { storedText } from './text'

export const Day = z.iso.date()
/** A time of day on the clock at the place where it happens, as `14:05`: it belongs to no zone. */
const TimeOfDay = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'A time of day is written as 14:05.')

/**
 * How something repeats, counted from the day on which it begins: every so many days, weeks, months or years. As much of RFC 5545
 * (3.3.10) as people plan with; what a month or a year does not have, such as the 31st of June, is left out there.
 */
export const Repeats = z.strictObject({
  every: z.number().int().min(1).max(400),
  unit: z.enum(['day', 'week', 'month', 'year']),
  /** Of weeks the days on which it is, Monday is 0; without them the one on which it begins. */
  weekdays: z.array(z.number().int().min(0).max(6)).min(1).max(7).optional(),
  /** Of months the how manieth of the weekday on which it begins, -1 for the last; without it the same day of the month. */
  nth: z.union([z.literal(-1), z.number().int().min(1).max(5)]).optional(),
  /** The last day on which it may begin. */
  until: Day.optional(),
})
export type Repeats = z.infer<typeof Repeats>

/** One day, or a span of days that ends on its second one, as in ISO 8601. */
export const Dates = z
  .strictObject({
    start: Day,
    end: Day.nullable(),
    /** When it begins on the first day, and ends on the last one. */
    from: TimeOfDay.optional(),
    to: TimeOfDay.optional(),
    repeats: Repeats.optional(),
  })
  .refine(({ start, end }) => end === null || end >= start, 'A span of days ends after it begins.')
  .refine(
    ({ start, end, from, to }) => !to || (from !== undefined && (to >= from || (end !== null && end > start))),
    'What ends at a time of day begins at one before it.',
  )
export type Dates = z.infer<typeof Dates>

export const TaskState = z.enum(['open', 'begun', 'done'])
export type TaskState = z.infer<typeof TaskState>

/** Most people who do one thing, and the longest effort, in minutes. */
export const MOST_WHO = 20
export const MOST_EFFORT = 10_000 * 60

/** Somebody who does something: a member of the collection, or a name alone. */
/** Longest name of somebody who does something, in UTF-16 code units. */
export const MAX_DOER_NAME = 200
export const Doer = z.strictObject({ person: PersonId.nullable(), name: storedText(MAX_DOER_NAME).min(1) })

/** What is known of the work on something, as far as it is. */
export const Work = z
  .strictObject({
    who: z.array(Doer).min(1).max(MOST_WHO),
    /** In minutes. */
    effort: z.number().int().min(1).max(MOST_EFFORT),
    /** How much of it is done, in percent. */
    progress: z.number().int().min(0).max(100),
    /** The day on which it was ticked off. */
    doneOn: Day,
  })
  .partial()
export type Doer = z.infer<typeof Doer>
export type Work = z.infer<typeof Work>
