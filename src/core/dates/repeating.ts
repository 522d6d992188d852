import type { Dates, Repeats } from '../records/dates'
import { dayNumber, isoDay } from '../text/days'

/** Of one thing so many steps are looked at: months without a 31st among them. */
const MOST_STEPS = 5_000

/**
 * The days on which something that repeats begins, from `from` to `to` (inclusive), its first day among them. O(those days): it is not
 * counted through what lies before.
 */
export function* beginnings(start: string, repeats: Repeats, from: string, to: string): Generator<string> {
  const last = repeats.until !== undefined && repeats.until < to ? repeats.until : to
  for (const day of stepsFrom(start, repeats, from > start ? from : start)) {
    if (day > last) return
    if (day >= from && day >= start) yield day
  }
}

/** The days from about `from` on, in order; they can begin a little before it. */
function* stepsFrom(start: string, repeats: Repeats, from: string): Generator<string> {
  const { every, unit } = repeats
  const [first, wanted] = [dayNumber(start), dayNumber(from)]
  if (unit === 'day') {
    const skipped = Math.max(0, Math.ceil((wanted - first) / every))
    for (let i = 0; i < MOST_STEPS; i++) yield isoDay(first + (skipped + i) * every)
  } else if (unit === 'week') {
    const monday = first - weekday(first)
    const days = [...new Set(repeats.weekdays ?? [weekday(first)])].sort((a, b) => a - b)
    const skipped = Math.max(0, Math.floor((wanted - monday) / (7 * every)))
    for (let i = 0; i < MOST_STEPS; i++) for (const day of days) yield isoDay(monday + 7 * every * (skipped + i) + day)
  } else {
    const months = unit === 'year' ? 12 * every : every
    const [month, target] = [monthNumber(start), monthNumber(from)]
    const skipped = Math.max(0, Math.floor((target - month) / months))
    for (let i = 0; i < MOST_STEPS; i++) {
      const day = dayInMonth(month + months * (skipped + i), start, repeats.nth)
      if (day !== null) yield day
    }
  }
}

/** The weekday of a day by its number; Monday is 0. Day 0, 1970-01-01, is a Thursday. */
const weekday = (number: number): number => (((number + 3) % 7) + 7) % 7

export const weekdayOf = (day: string): number => weekday(dayNumber(day))

/** Months since the year 0. */
const monthNumber = (day: string): number => Number(day.slice(0, -6)) * 12 + Number(day.slice(-5, -3)) - 1

/** The day of a month that is like `start`: the same in number, or the same weekday for the `nth` time. Null where there is none. */
function dayInMonth(month: number, start: string, nth: number | undefined): string | null {
  const [year, index] = [Math.floor(month / 12), month % 12]
  const prefix = `${String(year).padStart(4, '0')}-${String(index + 1).padStart(2, '0')}`
  const length = new Date(Date.UTC(2000, index + 1, 0)).getUTCDate() - (index === 1 && !isLeap(year) ? 1 : 0)
  if (nth === undefined) return Number(start.slice(-2)) <= length ? `${prefix}-${start.slice(-2)}` : null
  const first = (weekdayOf(start) - weekdayOf(`${prefix}-01`) + 7) % 7
  const day = nth === -1 ? first + 1 + 7 * Math.floor((length - first - 1) / 7) : first + 1 + 7 * (nth - 1)
  return day <= length ? `${prefix}-${String(day).padStart(2, '0')}` : null
}

const isLeap = (year: number) => (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0

/** The how manieth of its weekday a day is in its month. */
export const nthOf = (day: string): number => Math.floor((Number(day.slice(-2)) - 1) / 7) + 1

/** The same span when it is next; null where it does not repeat, or not any more. */
export function nextTime(dates: Dates): Dates | null {
  if (!dates.repeats) return null
  const after = isoDay(dayNumber(dates.start) + 1)
  for (const day of beginnings(dates.start, dates.repeats, after, '9999-12-31')) return beginningOn(dates, day)
  return null
}

/** The same span beginning on another day; it goes on repeating from there. */
function beginningOn(dates: Dates, day: string): Dates {
  const later = dayNumber(day) - dayNumber(dates.start)
  return { ...dates, start: day, end: dates.end === null ? null : isoDay(dayNumber(dates.end) + later) }
}

/** When something is, from one day to another, each time as a span that does not repeat; at most `most` times. */
export function timesOf(dates: Dates, from: string, to: string, most: number): Dates[] {
  const { repeats, ...once } = dates
  if (!repeats) return [once]
  const length = once.end === null ? 0 : dayNumber(once.end) - dayNumber(once.start)
  const times: Dates[] = []
  for (const day of beginnings(once.start, repeats, isoDay(dayNumber(from) - length), to)) {
    times.push(beginningOn(once, day))
    if (times.length >= most) break
  }
  return times
}
