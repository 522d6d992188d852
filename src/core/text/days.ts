import type { Dates } from '../records/topic'

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/** Day and month of an ISO 8601 date, as people read it: `9 May`. */
export function dayAndMonth(day: string): string {
  const [, month, date] = day.split('-')
  return `${Number(date)} ${MONTHS[Number(month) - 1]}`
}

const wholeDay = (day: string) => `${dayAndMonth(day)} ${day.slice(0, day.indexOf('-'))}`

/** A day or a span of days in words: `9 May 2026 to 3 Jun 2026`. */
export const datesInWords = ({ start, end }: Dates): string =>
  end === null || end === start ? wholeDay(start) : `${wholeDay(start)} to ${wholeDay(end)}`

/** A day in ms. */
export const DAY_MS = 86_400_000

/** Days since 1970-01-01 of an ISO 8601 date; NaN for what is none. */
export const dayNumber = (day: string): number => Date.parse(day) / DAY_MS

/** The ISO 8601 date of a number of days since 1970-01-01. */
export const isoDay = (number: number): string => new Date(number * DAY_MS).toISOString().slice(0, -14)
