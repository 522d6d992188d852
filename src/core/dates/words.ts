import type { Dates, Repeats } from '../records/dates'
import type { Calendar } from '../text/days'
import { weekdayOf } from './repeating'

const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
const NTH: Record<number, string> = { 1: 'first', 2: 'second', 3: 'third', 4: 'fourth', 5: 'fifth', [-1]: 'last' }

/** How something repeats, in words: `every 2 weeks on Monday and Thursday until 3 June 2026`. */
export function repeatWords({ every, unit, weekdays, nth, until }: Repeats, start: string, calendar: Calendar): string {
  const step = every === 1 ? `every ${unit}` : `every ${every} ${unit}s`
  const on =
    unit === 'week' && weekdays
      ? ` on ${listed(weekdays.map((day) => WEEKDAYS[day]!))}`
      : unit === 'month' && nth !== undefined
        ? ` on the ${NTH[nth]} ${WEEKDAYS[weekdayOf(start)]}`
        : ''
  return step + on + (until ? ` until ${calendar.wholeDay(until)}` : '')
}

const listed = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`

/** The times of day, in words; empty where there are none. */
export const timeWords = ({ from, to }: Pick<Dates, 'from' | 'to'>): string =>
  from === undefined ? '' : to === undefined ? from : `${from} to ${to}`
