import fc from 'fast-check'
import { expect, test } from 'vitest'
import { type CalendarItem, readCalendar, writeCalendar } from '../../../src/core/formats/icalendar'
import { isoDay } from '../../../src/core/text/days'

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

const words = fc
  .string({ unit: 'grapheme', minLength: 1, maxLength: 120 })
  .map((text) => `x${text.replace(/\s/g, ' ')}x`)
const day = fc.integer({ min: -20_000, max: 40_000 })
const anItem = fc
  .record({
    uid: words,
    text: words,
    note: fc.oneof(
      fc.constant(''),
      fc.tuple(words, words).map((two) => two.join('\n')),
    ),
    day,
    length: fc.nat(40),
    task: fc.constantFrom(null, 'open', 'begun', 'done'),
  })
  .map(
    ({ day: at, length, ...rest }): CalendarItem =>
      ({
        ...rest,
        url: '',
        dates: { start: isoDay(at), end: length === 0 ? null : isoDay(at + length) },
      }) as CalendarItem,
  )

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
    item({ uid: '1', text: 'Training, indoors; bring tea', dates: { start: '2026-03-14', end: null } }),
    item({ uid: '2', text: 'Open days', dates: { start: '2026-05-10', end: '2026-05-12' } }),
    item({ uid: '6', text: 'Holiday', dates: { start: '2026-01-01', end: '2026-01-03' } }),
    item({ uid: '3', text: 'Report', dates: { start: '2026-06-01', end: null }, task: 'begun' }),
    item({ uid: '4', text: 'Some day', task: 'open' }),
  ])
  expect(unread).toEqual([
    'Training, indoors; bring tea: its time of day was left out.',
    'Open days: it repeats; its first time was taken.',
    'Never: it has no day.',
  ])
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
