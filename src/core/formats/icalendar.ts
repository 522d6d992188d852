import ICAL from 'ical.js'
import type { Dates, TaskState } from '../records/topic'
import { dayNumber, isoDay } from '../text/days'

/** What a calendar holds of a topic. */
export interface CalendarItem {
  /** What tells it from all others, in every calendar. */
  uid: string
  text: string
  note: string
  dates: Dates | null
  task: TaskState | null
  /** Where it can be seen; empty where that is nowhere. */
  url: string
}

const STATUS: Record<TaskState, string> = { open: 'NEEDS-ACTION', begun: 'IN-PROCESS', done: 'COMPLETED' }
const TASK_OF: Record<string, TaskState> = {
  'NEEDS-ACTION': 'open',
  'IN-PROCESS': 'begun',
  COMPLETED: 'done',
  CANCELLED: 'done',
}

const dateOf = (day: string) => ICAL.Time.fromDateString(day)

/**
 * Writes a calendar as iCalendar (RFC 5545): tasks as to-dos that are due on their last day, all else as events of whole days. `stamp` is
 * when it is written, an instant in ISO 8601; everything else follows from the items.
 */
export function writeCalendar(name: string, items: readonly CalendarItem[], stamp: string): string {
  const calendar = new ICAL.Component(['vcalendar', [], []])
  calendar.updatePropertyWithValue('version', '2.0')
  calendar.updatePropertyWithValue('prodid', '-//Folvet//Folvet//EN')
  calendar.updatePropertyWithValue('x-wr-calname', name)
  const at = ICAL.Time.fromJSDate(new Date(stamp), true)
  for (const { uid, text, note, dates, task, url } of items) {
    if (!dates) continue
    const part = new ICAL.Component(task ? 'vtodo' : 'vevent')
    part.updatePropertyWithValue('uid', uid)
    part.updatePropertyWithValue('dtstamp', at)
    part.updatePropertyWithValue('summary', text)
    if (note) part.updatePropertyWithValue('description', note)
    if (url) part.updatePropertyWithValue('url', url)
    const last = dates.end ?? dates.start
    if (task) {
      if (dates.end) part.updatePropertyWithValue('dtstart', dateOf(dates.start))
      part.updatePropertyWithValue('due', dateOf(last))
      part.updatePropertyWithValue('status', STATUS[task])
    } else {
      part.updatePropertyWithValue('dtstart', dateOf(dates.start))
      // An event ends before this day begins.
      part.updatePropertyWithValue('dtend', dateOf(isoDay(dayNumber(last) + 1)))
    }
    calendar.addSubcomponent(part)
  }
  return `${calendar.toString()}\r\n`
}

export interface ReadCalendar {
  name: string
  items: CalendarItem[]
  /** What could not be taken over as it was, in words. */
  unread: string[]
}

/** Of one calendar so many entries are read. */
const MOST = 5_000

/**
 * Reads events and to-dos of an iCalendar file. Days are those at the place that the calendar names; times of day are left out, and of
 * what repeats the first time is taken: both are told in `unread`. Throws a RangeError with a sentence for what is no calendar.
 */
export function readCalendar(text: string): ReadCalendar {
  let calendar: ICAL.Component
  try {
    calendar = new ICAL.Component(ICAL.parse(text))
  } catch {
    throw new RangeError('This is no calendar that can be read.')
  }
  if (calendar.name !== 'vcalendar') throw new RangeError('This is no calendar that can be read.')
  const parts = [...calendar.getAllSubcomponents('vevent'), ...calendar.getAllSubcomponents('vtodo')]
  const unread: string[] = []
  if (parts.length > MOST) unread.push(`Only the first ${MOST} of ${parts.length} entries were read.`)
  const items = parts.slice(0, MOST).flatMap((part) => readPart(part, unread) ?? [])
  const name = wordsOf(calendar, 'x-wr-calname')
  return { name, items, unread }
}

function readPart(part: ICAL.Component, unread: string[]): CalendarItem | null {
  const text = wordsOf(part, 'summary') || 'Untitled'
  const isTask = part.name === 'vtodo'
  const start = timeOf(part, 'dtstart')
  const end = timeOf(part, isTask ? 'due' : 'dtend') ?? afterDuration(part, start)
  const first = start ?? end
  if (!first && !isTask) {
    unread.push(`${text}: it has no day.`)
    return null
  }
  if (part.hasProperty('recurrence-id')) {
    unread.push(`${text}: one of its repetitions is on another day.`)
    return null
  }
  if (part.hasProperty('rrule') || part.hasProperty('rdate'))
    unread.push(`${text}: it repeats; its first time was taken.`)
  if ((start && !start.isDate) || (end && !end.isDate)) unread.push(`${text}: its time of day was left out.`)
  return {
    uid: wordsOf(part, 'uid'),
    text,
    note: wordsOf(part, 'description'),
    dates: first ? spanOf(first, end, isTask) : null,
    task: isTask ? (TASK_OF[wordsOf(part, 'status').toUpperCase()] ?? 'open') : null,
    url: wordsOf(part, 'url'),
  }
}

function spanOf(start: ICAL.Time, end: ICAL.Time | null, isTask: boolean): Dates {
  const first = dayOf(start)
  if (!end) return { start: first, end: null }
  // An event of whole days ends before its end begins, one until midnight on the day before.
  const isExclusive = !isTask && (end.isDate || (end.hour === 0 && end.minute === 0 && end.second === 0))
  const last = isExclusive ? isoDay(dayNumber(dayOf(end)) - 1) : dayOf(end)
  return { start: first, end: last > first ? last : null }
}

const dayOf = ({ year, month, day }: ICAL.Time): string =>
  `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`

/** A time that exists: calendars in use hold days such as the 31st of June. */
function timeOf(part: ICAL.Component, name: string): ICAL.Time | null {
  const value = part.getFirstPropertyValue(name)
  if (!(value instanceof ICAL.Time)) return null
  const day = dayOf(value)
  return Number.isNaN(dayNumber(day)) || isoDay(dayNumber(day)) !== day ? null : value
}

function afterDuration(part: ICAL.Component, start: ICAL.Time | null): ICAL.Time | null {
  const duration = part.getFirstPropertyValue('duration')
  if (!start || !(duration instanceof ICAL.Duration)) return null
  const end = start.clone()
  end.addDuration(duration)
  return end
}

function wordsOf(part: ICAL.Component, name: string): string {
  const value = part.getFirstPropertyValue(name)
  return typeof value === 'string' ? value.trim() : ''
}
