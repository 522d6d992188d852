import type { Dates } from '../records/dates'

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/** How days are written in a drawing. All days are dates as ISO 8601 writes them. */
export interface Calendar {
  /** The day that is marked on scales of days, where it lies within. */
  today: string | null
  /** Day and month, as people read them: `9 May`. */
  dayAndMonth(day: string): string
  /** The same with the year: `9 May 2026`. */
  wholeDay(day: string): string
  /** The month, short: `May`. */
  month(day: string): string
}

const month = (day: string): string => MONTHS[Number(day.split('-').at(-2)) - 1]!
/** The year of a date. */
export const yearOf = (day: string): string => day.slice(0, day.lastIndexOf('-', day.length - 4))

const dayAndMonth = (day: string): string => `${Number(day.split('-').at(-1))} ${month(day)}`

/** Days as they are written where nobody's language is known: in what is published, exported or drawn on the server. */
export const ENGLISH: Calendar = {
  today: null,
  dayAndMonth,
  month,
  wholeDay: (day) => `${dayAndMonth(day)} ${yearOf(day)}`,
}

/** The days that a span names, one or two, in English words: `9 May 2026`. */
export const namedDays = ({ start, end }: Dates): { day: string; words: string }[] =>
  [start, ...(end === null || end === start ? [] : [end])].map((day) => ({
    day,
    words: ENGLISH.wholeDay(day),
  }))

/** A day in ms. */
export const DAY_MS = 86_400_000

/** Days since 1970-01-01 of an ISO 8601 date; NaN for what is none. */
export const dayNumber = (day: string): number => Date.parse(day) / DAY_MS

/** The ISO 8601 date of a number of days since 1970-01-01. */
export const isoDay = (number: number): string => new Date(number * DAY_MS).toISOString().slice(0, -14)
