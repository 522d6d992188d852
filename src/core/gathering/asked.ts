import { weekOf } from '../dates/agenda'
import type { AskedDays, AskedTask, SearchAsked } from '../records/search'
import { dayNumber, isoDay } from '../text/days'

/** Whether a search asks for anything: one that does not finds nothing. */
export const isAsking = ({ words, tag, map, task, due, who }: SearchAsked): boolean =>
  words.trim() !== '' || [tag, map, task, due, who].some((part) => part !== null)

/** The days that are asked for, as ISO 8601 dates, both of them included; null leaves an end open. Null where no date is asked for. */
export function daysAsked({ due }: SearchAsked, today: string): { from: string | null; to: string | null } | null {
  if (!due) return null
  if (!('period' in due)) {
    const day = (after: number | null) => (after === null ? null : isoDay(dayNumber(today) + after))
    return { from: day(due.from), to: day(due.to) }
  }
  if (due.period === 'week') return { from: weekOf(today), to: isoDay(dayNumber(weekOf(today)) + 6) }
  const first = `${today.slice(0, 7)}-01`
  // 31 days after the first lies in the next month, whichever it is.
  return { from: first, to: isoDay(dayNumber(`${isoDay(dayNumber(first) + 31).slice(0, 7)}-01`) - 1) }
}

/** Names that a search is told with. */
export interface AskedNames {
  tag(id: string): string
  map(id: string): string
}

const TASKS: Record<AskedTask, string> = { left: 'still to do', open: 'to do', begun: 'begun', done: 'done' }

/** What a search asks for, in words: `with “pond”, tagged Permits, still to do, due in the next 60 days, in Water`. */
export function askedWords(asked: SearchAsked, names: AskedNames): string {
  const { words, tag, map, task, due, who } = asked
  return [
    ...(words.trim() === '' ? [] : [`with “${words.trim()}”`]),
    ...(tag ? [`tagged ${names.tag(tag)}`] : []),
    ...(task ? [TASKS[task]] : []),
    ...(due ? [dueWords(due)] : []),
    ...(who ? [`by ${who.name}`] : []),
    ...(map ? [`in ${names.map(map)}`] : []),
  ].join(', ')
}

const days = (count: number): string => (count === 1 ? '1 day' : `${count} days`)

/** Days from today on, as people say them. */
export function dueWords(due: AskedDays): string {
  if ('period' in due) return `due this ${due.period}`
  const { from, to } = due
  if (from === null && to === null) return 'with a date'
  if (from === 0 && to === 0) return 'due today'
  if (from === null) return to === -1 ? 'past its date' : to === 0 ? 'due by today' : `due ${relative(to!)}, or before`
  if (to === null) return from === 0 ? 'due from today on' : `due ${relative(from)}, or later`
  if (from === 0) return to === 1 ? 'due today or tomorrow' : `due in the next ${days(to)}`
  return `due between ${relative(from)} and ${relative(to)}`
}

function relative(after: number): string {
  if (after === 0) return 'today'
  return after > 0 ? `${days(after)} from now` : `${days(-after)} ago`
}
