import ICAL from 'ical.js'
import { beginnings, weekdayOf } from '../dates/repeating'
import { type Dates, Repeats, type TaskState } from '../records/dates'
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

export const STATUS: Record<TaskState, string> = { open: 'NEEDS-ACTION', begun: 'IN-PROCESS', done: 'COMPLETED' }
const TASK_OF: Record<string, TaskState> = {
  'NEEDS-ACTION': 'open',
  'IN-PROCESS': 'begun',
  COMPLETED: 'done',
  CANCELLED: 'done',
}

/** A day, or a moment of it on the clock of the place where it is (RFC 5545, 3.3.5, form 1). */
const timeAt = (day: string, time?: string) =>
  time === undefined ? ICAL.Time.fromDateString(day) : ICAL.Time.fromDateTimeString(`${day}T${time}:00`)

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
    writeDates(part, dates, task)
    calendar.addSubcomponent(part)
  }
  return `${calendar.toString()}\r\n`
}

/** Writes when something is into its part of a calendar, which says nothing about that yet. */
export function writeDates(part: ICAL.Component, dates: Dates, task: TaskState | null): void {
  const { start, from, to, repeats } = dates
  const last = dates.end ?? start
  if (task) {
    // A task of one moment is due then.
    const hasStart = dates.end !== null || to !== undefined || repeats !== undefined
    if (hasStart) part.updatePropertyWithValue('dtstart', timeAt(start, from))
    // Both are days, or both are moments (3.8.2.3).
    part.updatePropertyWithValue(
      'due',
      timeAt(last, from === undefined ? undefined : (to ?? (hasStart ? END_OF_DAY : from))),
    )
    part.updatePropertyWithValue('status', STATUS[task])
  } else {
    part.updatePropertyWithValue('dtstart', timeAt(start, from))
    // An event of whole days ends before this day begins.
    if (from === undefined) part.updatePropertyWithValue('dtend', timeAt(isoDay(dayNumber(last) + 1)))
    else if (to !== undefined) part.updatePropertyWithValue('dtend', timeAt(last, to))
    else if (dates.end !== null) part.updatePropertyWithValue('dtend', timeAt(last, END_OF_DAY))
  }
  if (repeats) part.updatePropertyWithValue('rrule', ruleOf(repeats, start, from))
}

/** What has no time at which it ends, ends with its last day. */
const END_OF_DAY = '23:59'

const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']
const FREQUENCIES = { day: 'DAILY', week: 'WEEKLY', month: 'MONTHLY', year: 'YEARLY' } as const

/** As a rule of recurrence (RFC 5545, 3.3.10). */
function ruleOf({ every, unit, weekdays, nth, until }: Repeats, start: string, from: string | undefined): ICAL.Recur {
  const parts = [
    `FREQ=${FREQUENCIES[unit]}`,
    ...(every === 1 ? [] : [`INTERVAL=${every}`]),
    ...(weekdays ? [`BYDAY=${weekdays.map((day) => WEEKDAYS[day]).join(',')}`] : []),
    ...(nth === undefined ? [] : [`BYDAY=${nth}${WEEKDAYS[weekdayOf(start)]}`]),
    ...(until === undefined ? [] : [`UNTIL=${until.replaceAll('-', '')}${from === undefined ? '' : 'T235959'}`]),
  ]
  return ICAL.Recur.fromString(parts.join(';'))
}

/**
 * A rule of recurrence as we keep it; null where it says more than that. Only what it says is looked at: counting through one can take
 * for ever.
 */
function repeatsOf(rule: ICAL.Recur, start: string): Repeats | null {
  const said = rule
    .toString()
    .split(';')
    .map((part) => part.split('=') as [string, string])
  const parts = new Map(said)
  const unit = (Object.keys(FREQUENCIES) as Repeats['unit'][]).find((each) => FREQUENCIES[each] === parts.get('FREQ'))
  const known = new Set(['FREQ', 'INTERVAL', 'BYDAY', 'UNTIL', 'COUNT', 'WKST', 'BYMONTHDAY', 'BYMONTH'])
  const isLike = (name: string, value: number) => !parts.has(name) || Number(parts.get(name)) === value
  const [, month = 0, day = 0] = start.split('-').map(Number)
  if (!unit || said.some(([name]) => !known.has(name))) return null
  if (!isLike('BYMONTHDAY', day) || !isLike('BYMONTH', month) || (parts.has('BYMONTH') && unit !== 'year')) return null
  if (parts.has('BYMONTHDAY') && (unit === 'day' || unit === 'week')) return null
  const days = parts.get('BYDAY')?.split(',') ?? []
  const base = { every: Number(parts.get('INTERVAL') ?? 1), unit }
  const until = /^\d{8}/.exec(parts.get('UNTIL') ?? '')?.[0].replace(/(....)(..)(..)/, '$1-$2-$3')
  const count = Number(parts.get('COUNT') ?? 0)
  const on =
    days.length === 0 ? {} : unit === 'week' ? weekdaysOf(days) : unit === 'month' ? nthOfMonth(days, start) : null
  if (!on) return null
  const parsed = Repeats.safeParse({ ...base, ...on, ...(until === undefined ? {} : { until }) })
  if (!parsed.success) return null
  return count > 0 ? { ...parsed.data, until: lastOf(start, parsed.data, count) } : parsed.data
}

function weekdaysOf(days: readonly string[]): Pick<Repeats, 'weekdays'> | null {
  const weekdays = days.map((day) => WEEKDAYS.indexOf(day))
  return weekdays.includes(-1) ? null : { weekdays: [...new Set(weekdays)].sort() }
}

/** The how manieth weekday of a month, where it is the one on which it begins. */
function nthOfMonth(days: readonly string[], start: string): Pick<Repeats, 'nth'> | null {
  const [, nth, name] = /^(-1|[1-5])([A-Z]{2})$/.exec(days.length === 1 ? days[0]! : '') ?? []
  if (name !== WEEKDAYS[weekdayOf(start)]) return null
  return { nth: Number(nth) as NonNullable<Repeats['nth']> }
}

/** Most times that are counted. */
const MOST_COUNTED = 2_000

/** The day of the last of so many times. */
function lastOf(start: string, repeats: Repeats, count: number): string {
  let last = start
  let left = Math.min(count, MOST_COUNTED)
  for (const day of beginnings(start, repeats, start, '9999-12-31')) {
    last = day
    if (--left === 0) break
  }
  return last
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
 * Reads events and to-dos of an iCalendar file. Days and times of day are those on the clock of the place that the calendar names; what is
 * told in universal time is taken over into `zone`, a name of the IANA database. Of what repeats in a way that is not kept here the first
 * time is taken, and that is told in `unread`. Throws a RangeError with a sentence for what is no calendar.
 */
export function readCalendar(text: string, zone = 'UTC'): ReadCalendar {
  const calendar = parsed(text)
  const parts = partsOf(calendar)
  const unread: string[] = []
  if (parts.length > MOST) unread.push(`Only the first ${MOST} of ${parts.length} entries were read.`)
  const items = parts.slice(0, MOST).flatMap((part) => readPart(part, unread, zone) ?? [])
  const name = wordsOf(calendar, 'x-wr-calname')
  return { name, items, unread }
}

/** Throws a RangeError with a sentence for what is no calendar. */
export function parsed(text: string): ICAL.Component {
  try {
    const calendar = new ICAL.Component(ICAL.parse(text))
    if (calendar.name === 'vcalendar') return calendar
  } catch {
    // Told below.
  }
  throw new RangeError('This is no calendar that can be read.')
}

/** The events and to-dos of a calendar. */
export const partsOf = (calendar: ICAL.Component): ICAL.Component[] => [
  ...calendar.getAllSubcomponents('vevent'),
  ...calendar.getAllSubcomponents('vtodo'),
]

/** Reads one event or to-do; null for one without a day. What is not taken over as it was is told in `unread`. */
export function readPart(part: ICAL.Component, unread: string[], zone: string): CalendarItem | null {
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
  const dates = first
    ? datesOf(clockOf(first, zone), end && clockOf(end, zone), isTask && start === null, isTask)
    : null
  const rule = part.getFirstPropertyValue('rrule')
  const repeats = dates && rule instanceof ICAL.Recur ? repeatsOf(rule, dates.start) : null
  const isOnlyFirst = (rule !== null && !repeats) || part.hasProperty('rdate')
  if (isOnlyFirst) unread.push(`${text}: it repeats in a way that is not kept here; its first time was taken.`)
  else if (part.hasProperty('exdate')) unread.push(`${text}: the days on which it is left out were not kept.`)
  return {
    uid: wordsOf(part, 'uid'),
    text,
    note: wordsOf(part, 'description'),
    dates: dates && repeats && !isOnlyFirst ? { ...dates, repeats } : dates,
    task: isTask ? (TASK_OF[wordsOf(part, 'status').toUpperCase()] ?? 'open') : null,
    url: wordsOf(part, 'url'),
  }
}

/** A day, with the time of day where one is told. */
interface Clock {
  day: string
  time: string | null
}

export function clockOf(at: ICAL.Time, zone: string): Clock {
  if (at.isDate) return { day: dayOf(at), time: null }
  const two = (number: number) => String(number).padStart(2, '0')
  if (at.zone !== ICAL.Timezone.utcTimezone) return { day: dayOf(at), time: `${two(at.hour)}:${two(at.minute)}` }
  const parts = new Map(
    clockIn(zone)
      .formatToParts(at.toJSDate())
      .map(({ type, value }) => [type, value]),
  )
  const part = (name: Intl.DateTimeFormatPartTypes) => parts.get(name) ?? ''
  const day = `${part('year').padStart(4, '0')}-${part('month')}-${part('day')}`
  return { day, time: `${part('hour')}:${part('minute')}` }
}

const clocks = new Map<string, Intl.DateTimeFormat>()
/** The clock of a zone; that of universal time where the name is none. */
function clockIn(zone: string): Intl.DateTimeFormat {
  const options = {
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
  } as const
  let clock = clocks.get(zone)
  if (!clock) {
    try {
      clock = new Intl.DateTimeFormat('en', { ...options, timeZone: zone })
    } catch {
      clock = new Intl.DateTimeFormat('en', { ...options, timeZone: 'UTC' })
    }
    if (clocks.size < 500) clocks.set(zone, clock)
  }
  return clock
}

function datesOf(start: Clock, end: Clock | null, isDueOnly: boolean, isTask: boolean): Dates {
  const from = start.time === null ? {} : { from: start.time }
  if (!end || isDueOnly) return { start: start.day, end: null, ...from }
  // An event of whole days ends before its end begins, one until midnight with the day before.
  const isExclusive = !isTask && (end.time === null || (end.time === '00:00' && end.day > start.day))
  const last = isExclusive ? isoDay(dayNumber(end.day) - 1) : end.day
  const to = isExclusive ? (end.time === null ? null : END_OF_DAY) : end.time
  const span = { start: start.day, end: last > start.day ? last : null, ...from }
  // What ends with its last day says no time.
  if (start.time === null || to === null || to === END_OF_DAY || (span.end === null && to <= start.time)) return span
  return { ...span, to }
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
