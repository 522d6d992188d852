import { en as english, de as german } from 'chrono-node'

/** In which order somebody writes year, month and day in figures. */
export type DayOrder = 'dmy' | 'mdy' | 'ymd'

/** Who reads a day: what day it is for them, and how they write days. */
export interface DayReader {
  /** As ISO 8601. */
  today: string
  order: DayOrder
}

/** So long a day, or a time of day, may be written, in UTF-16 code units: `the second Wednesday of September`. */
export const LONGEST_DAY = 60
export const LONGEST_TIME = 20

/** Years that somebody can mean who types in a hurry: beyond them a year is half written. */
const [FIRST_YEAR, LAST_YEAR] = [1000, 2999]
/** A year of two figures is in this century, or, later than so many years from now, in the one before. */
const AHEAD = 50

const two = (number: number): string => String(number).padStart(2, '0')

/** The ISO 8601 date of a year, a month from 1 to 12 and a day of the month; null where there is none. */
function isoDate(year: number, month: number, day: number): string | null {
  if (year < FIRST_YEAR || year > LAST_YEAR) return null
  const date = new Date(Date.UTC(year, month - 1, day))
  return date.getUTCMonth() === month - 1 && date.getUTCDate() === day ? `${year}-${two(month)}-${two(day)}` : null
}

function wholeYear(digits: string, today: string): number {
  const year = Number(digits)
  if (digits.length > 2) return year
  const now = Number(today.slice(0, 4))
  const here = now - (now % 100) + year
  return here > now + AHEAD ? here - 100 : here
}

/** Day and month in figures without a year: the next such day from today on. */
function nextOf(month: number, day: number, today: string): string | null {
  const year = Number(today.slice(0, 4))
  // Eight years hold a leap day, whenever they begin.
  for (let later = 0; later <= 8; later++) {
    const date = isoDate(year + later, month, day)
    if (date && date >= today) return date
  }
  return null
}

/** Six or eight figures in a row, in the reader's order; else, of eight, with the year first. */
function readRun(run: string, { today, order }: DayReader): string | null {
  const part = (from: number, to?: number) => run.slice(from, to)
  const yearFirst = () => isoDate(wholeYear(part(0, -4), today), Number(part(-4, -2)), Number(part(-2)))
  if (order === 'ymd') return yearFirst()
  const [first, second, year] = [Number(part(0, 2)), Number(part(2, 4)), wholeYear(part(4), today)]
  const inOrder = order === 'dmy' ? isoDate(year, second, first) : isoDate(year, first, second)
  return inOrder ?? (run.length === 8 ? yearFirst() : null)
}

/** Figures: `2027-03-15`, `15.3.2027`, `3/15/27`, `15.3.`, `15032027`. Undefined where it is written otherwise. */
function readFigures(text: string, { today, order }: DayReader): string | null | undefined {
  if (/^\d{6}$|^\d{8}$/.test(text)) return readRun(text, { today, order })
  const parts = /^(\d{1,4})\s*[-./\s]\s*(\d{1,2})(?:\s*[-./\s]\s*(\d{1,4}))?\s*\.?$/.exec(text)
  if (!parts) return undefined
  const [first, second, third] = [parts[1]!, parts[2]!, parts[3]]
  if (first.length > 2) return third ? isoDate(Number(first), Number(second), Number(third)) : null
  if (order === 'ymd') {
    if (!third) return nextOf(Number(first), Number(second), today)
    return isoDate(wholeYear(first, today), Number(second), Number(third))
  }
  const [day, month] = order === 'dmy' ? [Number(first), Number(second)] : [Number(second), Number(first)]
  return third ? isoDate(wholeYear(third, today), month, day) : nextOf(month, day, today)
}

/** Words: `15 Mar`, `next Friday`, `in two weeks`, `morgen`, `am 3. Mai`. */
function readWords(text: string, { today, order }: DayReader): string | null {
  const reference = { instant: new Date(`${today}T12:00:00Z`), timezone: 0 }
  for (const reader of [order === 'mdy' ? english.casual : english.GB, german.casual]) {
    const [found, another] = reader.parse(text, reference, { forwardDate: true })
    // All of it is the day: of "the 3rd or so" nobody knows what is meant.
    if (!found || another || found.end || found.text.trim().length !== text.length) continue
    const { start } = found
    const [year, month, day] = [start.get('year'), start.get('month'), start.get('day')]
    // A month or a year alone is no day.
    const isDay = start.isCertain('day') || start.isCertain('weekday')
    if (isDay && year !== null && month !== null && day !== null) return isoDate(year, month, day)
  }
  return null
}

/**
 * The day that somebody means by a text, as an ISO 8601 date; null where it says none. Figures are read in the reader's order of
 * day and month, words in English and German; what names no year is the next such day from today on.
 *
 * Words are read by `chrono-node`.
 */
export function readDay(text: string, reader: DayReader): string | null {
  const written = text.trim().replaceAll(/\s+/g, ' ')
  if (written === '' || written.length > LONGEST_DAY) return null
  const figures = readFigures(written, reader)
  return figures === undefined ? readWords(written, reader) : figures
}

/** The time of day that somebody means, as `14:05`; null where it says none: `7:45`, `7.45`, `0745`, `19h`, `7 pm`. */
export function readTime(text: string): string | null {
  const parts = /^(\d{1,2})(?:\s*[:.h]\s*(\d{2})?|(\d{2}))?\s*(?:(am|pm|a\.m\.|p\.m\.)|h|uhr|o'clock)?$/i.exec(
    text.trim(),
  )
  if (!parts) return null
  const minute = Number(parts[2] ?? parts[3] ?? 0)
  const half = parts[4]?.[0]?.toLowerCase()
  const hour = Number(parts[1])
  if (half && (hour < 1 || hour > 12)) return null
  const whole = half ? (hour % 12) + (half === 'p' ? 12 : 0) : hour
  return whole < 24 && minute < 60 ? `${two(whole)}:${two(minute)}` : null
}
