import fc from 'fast-check'
import { expect, test } from 'vitest'
import { type CalendarItem, readCalendar, writeCalendar } from '../../../src/core/formats/icalendar'
import { anItem } from './calendar-items'

const calendar = (...lines: string[]) => ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR', ''].join('\r\n')
const item = (part: Partial<CalendarItem>): CalendarItem => ({
  uid: 'u',
  text: 't',
  note: '',
  dates: null,
  task: null,
  url: '',
  ...part,
})

test('what is written is read again as it was, whatever the words', () => {
  fc.assert(
    fc.property(fc.array(anItem, { maxLength: 8 }), (items) => {
      const text = writeCalendar('Season', items, '2026-11-27T09:00:00Z')
      const read = readCalendar(text)
      expect(read.name).toBe('Season')
      expect(read.unread).toEqual([])
      const byUid = (a: CalendarItem, b: CalendarItem) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1)
      expect([...read.items].sort(byUid)).toEqual([...items].sort(byUid))
      // No line is longer than 75 octets.
      for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
    }),
  )
})

test('a calendar of somebody else: times with a zone, to-dos, repetitions, folded lines', () => {
  const { items, unread } = readCalendar(
    calendar(
      'BEGIN:VTIMEZONE',
      'TZID:Europe/Berlin',
      'BEGIN:STANDARD',
      'DTSTART:19701025T030000',
      'TZOFFSETFROM:+0200',
      'TZOFFSETTO:+0100',
      'END:STANDARD',
      'END:VTIMEZONE',
      'BEGIN:VEVENT',
      'UID:1',
      'DTSTART;TZID=Europe/Berlin:20260314T190000',
      'DTEND;TZID=Europe/Berlin:20260314T210000',
      'SUMMARY:Training\\, indoors\\; bring tea',
      'END:VEVENT',
      'BEGIN:VEVENT',
      'UID:2',
      'DTSTART;VALUE=DATE:20260510',
      'DTEND;VALUE=DATE:20260513',
      'RRULE:FREQ=YEARLY',
      'SUMMARY:Open',
      '  days',
      'END:VEVENT',
      'BEGIN:VTODO',
      'UID:3',
      'DUE;VALUE=DATE:20260601',
      'STATUS:IN-PROCESS',
      'SUMMARY:Report',
      'END:VTODO',
      'BEGIN:VTODO',
      'UID:4',
      'SUMMARY:Some day',
      'END:VTODO',
      'BEGIN:VEVENT',
      'UID:5',
      'SUMMARY:Never',
      'END:VEVENT',
      'BEGIN:VEVENT',
      'UID:6',
      'DTSTART;VALUE=DATE:20260101',
      'DURATION:P3D',
      'SUMMARY:Holiday',
      'END:VEVENT',
    ),
  )
  expect(items).toEqual([
    item({
      uid: '1',
      text: 'Training, indoors; bring tea',
      dates: { start: '2026-03-14', end: null, from: '19:00', to: '21:00' },
    }),
    item({
      uid: '2',
      text: 'Open days',
      dates: { start: '2026-05-10', end: '2026-05-12', repeats: { every: 1, unit: 'year' } },
    }),
    item({ uid: '6', text: 'Holiday', dates: { start: '2026-01-01', end: '2026-01-03' } }),
    item({ uid: '3', text: 'Report', dates: { start: '2026-06-01', end: null }, task: 'begun' }),
    item({ uid: '4', text: 'Some day', task: 'open' }),
  ])
  expect(unread).toEqual(['Never: it has no day.'])
})

test.each([
  ['nothing', ''],
  ['a page', '# Season'],
  ['another thing of the kind', 'BEGIN:VCARD\r\nEND:VCARD'],
  ['one that was cut off', 'BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nSUMMARY:x'],
  ['a great many beginnings', 'BEGIN:VEVENT\r\n'.repeat(50_000)],
])('%s is refused in words', (_, text) => {
  expect(() => readCalendar(text)).toThrow('This is no calendar that can be read.')
})

test('what repeats is kept as far as it is like what people plan with, whatever a rule says', () => {
  const read = (rule: string, start = 'DTSTART;VALUE=DATE:20260310') => {
    const { items, unread } = readCalendar(
      calendar('BEGIN:VEVENT', 'UID:1', start, `RRULE:${rule}`, 'SUMMARY:Round', 'END:VEVENT'),
    )
    return unread.length > 0 ? 'first time' : items[0]!.dates!.repeats
  }
  expect(read('FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,TH;WKST=MO')).toEqual({ every: 2, unit: 'week', weekdays: [0, 3] })
  expect(read('FREQ=MONTHLY;BYDAY=2TU')).toEqual({ every: 1, unit: 'month', nth: 2 })
  expect(read('FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=10')).toEqual({ every: 1, unit: 'year' })
  expect(read('FREQ=DAILY;COUNT=3')).toEqual({ every: 1, unit: 'day', until: '2026-03-12' })
  expect(read('FREQ=WEEKLY;UNTIL=20260401T120000Z')).toEqual({ every: 1, unit: 'week', until: '2026-04-01' })
  for (const rule of [
    'FREQ=MONTHLY;BYDAY=2WE',
    'FREQ=MONTHLY;BYMONTHDAY=31',
    'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30',
    'FREQ=HOURLY',
    'FREQ=DAILY;BYMONTH=5',
    'FREQ=DAILY;INTERVAL=999999999',
    'FREQ=MONTHLY;BYSETPOS=-1;BYDAY=MO,TU',
  ])
    expect(read(rule), rule).toBe('first time')
  const began = performance.now()
  expect(read('FREQ=DAILY;COUNT=999999999')).toMatchObject({ unit: 'day' })
  expect(performance.now() - began).toBeLessThan(1_000)
})

test('what is told in universal time is taken over onto the clock of a place, also over its change in March', () => {
  const read = (zone: string, at: string) =>
    readCalendar(calendar('BEGIN:VEVENT', 'UID:1', `DTSTART:${at}`, 'SUMMARY:Call', 'END:VEVENT'), zone).items[0]!.dates
  expect(read('Europe/Berlin', '20260310T230000Z')).toEqual({ start: '2026-03-11', end: null, from: '00:00' })
  expect(read('Europe/Berlin', '20260630T220000Z')).toEqual({ start: '2026-07-01', end: null, from: '00:00' })
  expect(read('nowhere/at all', '20260310T230000Z')).toEqual({ start: '2026-03-10', end: null, from: '23:00' })
})
