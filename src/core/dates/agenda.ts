import type { Dates, TaskState } from '../records/dates'
import { dayNumber, isoDay } from '../text/days'

/** Something with a day: when it is, and whether there is something to do. */
export interface Dated {
  dates: Dates
  task: TaskState | null
}

/** The last day of a span. All days are dates as ISO 8601 writes them. */
export const lastDay = ({ start, end }: Dates): string => end ?? start

/** Whether it should have been done by now: a task whose last day is over. */
export const isOverdue = ({ dates, task }: Dated, today: string): boolean =>
  task !== null && task !== 'done' && lastDay(dates) < today

/** The Monday of the week of a day (ISO 8601). */
export function weekOf(day: string): string {
  const number = dayNumber(day)
  // Day 0, 1970-01-01, is a Thursday.
  return isoDay(number - ((((number + 3) % 7) + 7) % 7))
}

export interface Week<Row extends Dated> {
  monday: string
  rows: Row[]
}

const inOrder = (a: Dated, b: Dated): number =>
  compare(a.dates.start, b.dates.start) ||
  compare(a.dates.from ?? '', b.dates.from ?? '') ||
  compare(lastDay(a.dates), lastDay(b.dates))
const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0)

/**
 * What is dated, by week: first what is overdue, then from the week of `today` on what begins or still goes on, then what is over, the last
 * first. What goes on for longer stands in the week in which it begins, or in that of today. O(n log n).
 */
export function agendaOf<Row extends Dated>(
  rows: readonly Row[],
  today: string,
): { overdue: Row[]; ahead: Week<Row>[]; over: Week<Row>[] } {
  const sorted = [...rows].sort(inOrder)
  const thisWeek = weekOf(today)
  const ahead = new Map<string, Row[]>()
  const over = new Map<string, Row[]>()
  const overdue: Row[] = []
  for (const row of sorted) {
    if (isOverdue(row, today)) {
      overdue.push(row)
      continue
    }
    const isOver = lastDay(row.dates) < thisWeek
    const begins = weekOf(row.dates.start)
    const week = isOver || begins > thisWeek ? begins : thisWeek
    const weeks = isOver ? over : ahead
    weeks.set(week, [...(weeks.get(week) ?? []), row])
  }
  const listed = (weeks: Map<string, Row[]>) => [...weeks].map(([monday, of]) => ({ monday, rows: of }))
  return {
    overdue,
    ahead: listed(ahead).sort((a, b) => compare(a.monday, b.monday)),
    over: listed(over).sort((a, b) => compare(b.monday, a.monday)),
  }
}

/** The weeks of a month, Monday first, each of seven days; those of other months fill the first and the last. `month` as `2026-03`. */
export function monthWeeks(month: string): string[][] {
  const first = weekOf(`${month}-01`)
  const weeks: string[][] = []
  for (let monday = dayNumber(first); isoDay(monday).slice(0, month.length) <= month; monday += 7)
    weeks.push(Array.from({ length: 7 }, (_, i) => isoDay(monday + i)))
  return weeks
}

/** The same span so many days later, or earlier. */
export const movedBy = ({ start, end, ...rest }: Dates, days: number): Dates => ({
  ...rest,
  start: isoDay(dayNumber(start) + days),
  end: end === null ? null : isoDay(dayNumber(end) + days),
})
