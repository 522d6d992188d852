import ICAL from 'ical.js'
import type { Dates, TaskState } from '../records/dates'
import { clockOf, parsed, partsOf, readPart, STATUS, writeDates } from './icalendar'

/** What a topic and an entry of a calendar have in common. */
export interface Planned {
  text: string
  /** CommonMark here; a calendar shows it as it is written. */
  note: string
  dates: Dates | null
  /** To-dos of a calendar have a state, events have none. */
  task: TaskState | null
}

export interface CalendarEntry extends Planned {
  uid: string
  url: string
  /** Whether it says more about its days than is kept here, so that they must not be written over. */
  isFixed: boolean
}

/** The entry that one resource of a calendar holds (RFC 4791, 4.1): all its parts have the same uid, one of them stands for all times. */
const masterOf = (calendar: ICAL.Component): ICAL.Component | undefined =>
  partsOf(calendar).find((part) => !part.hasProperty('recurrence-id'))

/**
 * Reads one entry of a calendar, with times of day as `readCalendar` takes them over into `zone`. Null for one that has no day, has
 * nothing that tells it from others, or cannot be read.
 */
export function readEntry(text: string, zone: string): CalendarEntry | null {
  let calendar: ICAL.Component
  try {
    calendar = parsed(text)
  } catch {
    return null
  }
  const master = masterOf(calendar)
  const unread: string[] = []
  const item = master && readPart(master, unread, zone)
  if (!item || item.uid === '') return null
  return { ...item, isFixed: unread.length > 0 || partsOf(calendar).length > 1 }
}

interface Writing {
  /** The entry as it is there, in iCalendar; null for a new one. */
  before: string | null
  uid: string
  /** Where the topic can be seen; of a new entry only. */
  url: string
  /** When it is written, an instant in ISO 8601. */
  stamp: string
  zone: string
}

/**
 * An entry in iCalendar that says what is planned; all else that was in it stays: reminders, places, whoever is invited, its zone.
 * Throws a RangeError where what is there is no entry.
 */
export function writeEntry(planned: Planned, { before, uid, url, stamp, zone }: Writing): string {
  const calendar = before === null ? emptyCalendar() : parsed(before)
  const known = masterOf(calendar)
  if (before !== null && !known) throw new RangeError('This is no entry that can be written.')
  const was = before === null ? null : readEntry(before, zone)
  const told = zoneOf(known)
  const part = partOfKind(calendar, known, planned.task === null ? 'vevent' : 'vtodo')
  const isOfKind = known?.name === part.name
  const at = ICAL.Time.fromJSDate(new Date(stamp), true)
  if (!known) {
    part.updatePropertyWithValue('uid', uid)
    if (url !== '') part.updatePropertyWithValue('url', url)
  }
  part.updatePropertyWithValue('dtstamp', at)
  if (known) part.updatePropertyWithValue('sequence', Number(part.getFirstPropertyValue('sequence') ?? 0) + 1)
  if (was?.text !== planned.text) part.updatePropertyWithValue('summary', planned.text || 'Untitled')
  if ((was?.note ?? '') !== planned.note) setOrRemove(part, 'description', planned.note)
  if (!isOfKind || !sameDates(was?.dates ?? null, planned.dates)) writeDatesAnew(part, planned, told, zone)
  if (planned.task !== null && (!isOfKind || was?.task !== planned.task)) {
    part.updatePropertyWithValue('status', STATUS[planned.task])
    if (planned.task === 'done') part.updatePropertyWithValue('completed', at)
    else part.removeAllProperties('completed')
  }
  return `${calendar.toString()}\r\n`
}

export const sameDates = (a: Dates | null, b: Dates | null): boolean =>
  a === b || (a !== null && b !== null && inOrder(a) === inOrder(b))

const inOrder = ({ start, end, from, to, repeats }: Dates): string =>
  JSON.stringify([start, end, from, to, repeats && Object.entries(repeats).sort(([a], [b]) => (a < b ? -1 : 1))])

function emptyCalendar(): ICAL.Component {
  const calendar = new ICAL.Component(['vcalendar', [], []])
  calendar.updatePropertyWithValue('version', '2.0')
  calendar.updatePropertyWithValue('prodid', '-//Folvet//Folvet//EN')
  return calendar
}

/** The part as an event or a to-do: where it is the other one, all that both can say is taken over. */
function partOfKind(calendar: ICAL.Component, known: ICAL.Component | undefined, name: string): ICAL.Component {
  if (known?.name === name) return known
  const part = new ICAL.Component(name)
  for (const property of known?.getAllProperties() ?? [])
    if (!OWN_TO_A_KIND.has(property.name)) part.addProperty(new ICAL.Property(structuredClone(property.toJSON())))
  for (const inner of known?.getAllSubcomponents() ?? [])
    part.addSubcomponent(new ICAL.Component(structuredClone(inner.toJSON())))
  if (known) calendar.removeSubcomponent(known)
  calendar.addSubcomponent(part)
  return part
}

/** What only events, or only to-dos, can say (RFC 5545, 3.6.1 and 3.6.2), and when they are, which is written anew. */
const OWN_TO_A_KIND = new Set([
  ...['dtstart', 'dtend', 'due', 'duration', 'rrule', 'rdate', 'exdate'],
  ...['status', 'completed', 'percent-complete', 'transp'],
])

function setOrRemove(part: ICAL.Component, name: string, value: string): void {
  if (value === '') part.removeAllProperties(name)
  else part.updatePropertyWithValue(name, value)
}

const MOMENTS = ['dtstart', 'dtend', 'due'] as const

/** The zone in which an entry tells its times; null where it names none. */
function zoneOf(part: ICAL.Component | undefined): { tzid: string } | 'universal' | null {
  const told = MOMENTS.map((name) => part?.getFirstProperty(name)).find((each) => each)
  const [tzid, first] = [told?.getParameter('tzid'), told?.getFirstValue()]
  if (typeof tzid === 'string') return { tzid }
  const isUniversal = first instanceof ICAL.Time && !first.isDate && first.zone === ICAL.Timezone.utcTimezone
  return isUniversal ? 'universal' : null
}

/** Says anew when something is: in the zone in which it was told. `zone` is the one whose clock our times are on. */
function writeDatesAnew(
  part: ICAL.Component,
  { dates, task }: Planned,
  told: ReturnType<typeof zoneOf>,
  zone: string,
): void {
  for (const name of [...MOMENTS, 'duration', 'rrule']) part.removeAllProperties(name)
  if (!dates) return
  writeDates(part, dates, task)
  for (const name of MOMENTS) {
    const property = part.getFirstProperty(name)
    const value = property?.getFirstValue()
    if (!property || !(value instanceof ICAL.Time) || value.isDate) continue
    if (told === 'universal') property.setValue(universal(value, zone))
    else if (told) property.setParameter('tzid', told.tzid)
  }
}

/** The moment in universal time at which a clock in a zone shows a time; of two such moments the first. */
function universal(shown: ICAL.Time, zone: string): ICAL.Time {
  const wanted = Date.UTC(shown.year, shown.month - 1, shown.day, shown.hour, shown.minute)
  const shownAt = (moment: number): number => {
    const { day, time } = clockOf(ICAL.Time.fromJSDate(new Date(moment), true), zone)
    return Date.parse(`${day}T${time}:00Z`)
  }
  // A clock is off by at most a day; looked at twice, a change of the clock between the two is seen.
  let moment = wanted
  for (let i = 0; i < 2; i++) moment += wanted - shownAt(moment)
  return ICAL.Time.fromJSDate(new Date(moment), true)
}
