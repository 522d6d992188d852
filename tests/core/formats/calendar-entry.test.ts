import fc from 'fast-check'
import { expect, test } from 'vitest'
import { type Planned, readEntry, writeEntry } from '../../../src/core/formats/calendar-entry'
import { anItem } from './calendar-items'

const stamp = '2026-11-27T09:00:00Z'
const writing = { before: null, uid: 'u1', url: '', stamp, zone: 'Europe/Berlin' }
const planned = ({ text, note, dates, task }: Planned): Planned => ({ text, note, dates, task })
const entry = (...lines: string[]) => ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR', ''].join('\r\n')

const FULL = entry(
  'BEGIN:VTIMEZONE',
  'TZID:Own',
  'BEGIN:STANDARD',
  'DTSTART:19701025T030000',
  'TZOFFSETFROM:+0100',
  'TZOFFSETTO:+0100',
  'END:STANDARD',
  'END:VTIMEZONE',
  'BEGIN:VEVENT',
  'UID:u1',
  'DTSTART;TZID=Own:20260314T190000',
  'DTEND;TZID=Own:20260314T210000',
  'SUMMARY:Training',
  'LOCATION:Boat house',
  'ATTENDEE;CN=Ada:mailto:ada@example.org',
  'X-OWN;X-A=b:c',
  'BEGIN:VALARM',
  'ACTION:DISPLAY',
  'TRIGGER:-PT15M',
  'DESCRIPTION:Soon',
  'END:VALARM',
  'END:VEVENT',
)

test('an entry that is written over says what was planned, whatever it was before', () => {
  fc.assert(
    fc.property(anItem, anItem, (first, second) => {
      const before = writeEntry(first, writing)
      const after = writeEntry(second, { ...writing, before })
      expect(planned(readEntry(after, writing.zone)!)).toEqual(planned(second))
      expect(readEntry(after, writing.zone)!.uid).toBe('u1')
    }),
  )
})

test('what is not kept here stays in the entry: reminders, places, guests, its zone, also where it becomes a to-do', () => {
  fc.assert(
    fc.property(anItem, (item) => {
      const after = writeEntry(item, { ...writing, before: FULL })
      expect(planned(readEntry(after, writing.zone)!)).toEqual(planned(item))
      for (const kept of ['LOCATION:Boat house', 'CN=Ada', 'X-OWN', 'TRIGGER:-PT15M', 'BEGIN:VTIMEZONE'])
        expect(after).toContain(kept)
      if (item.dates?.from) expect(after).toMatch(/(DTSTART|DUE);TZID=Own:/)
    }),
  )
  const renamed = writeEntry({ ...planned(readEntry(FULL, 'UTC')!), text: 'Drill' }, { ...writing, before: FULL })
  expect(renamed).toContain('DTSTART;TZID=Own:20260314T190000')
  expect(renamed).toContain('SEQUENCE:1')
})

test('what was told in universal time is written in it, also over a change of the clock', () => {
  const before = entry(
    ...['BEGIN:VEVENT', 'UID:u1', 'SUMMARY:Call', 'DTSTART:20260314T180000Z', 'DTEND:20260314T190000Z', 'END:VEVENT'],
  )
  const was = readEntry(before, 'Europe/Berlin')!
  expect(was.dates).toEqual({ start: '2026-03-14', end: null, from: '19:00', to: '20:00' })
  const moved = { ...planned(was), dates: { ...was.dates!, start: '2026-03-30' } }
  const after = writeEntry(moved, { ...writing, before })
  expect(after).toContain('DTSTART:20260330T170000Z')
  expect(readEntry(after, 'Europe/Berlin')!.dates).toEqual(moved.dates)
})

test.each([
  ['a rule that says more', ['RRULE:FREQ=MONTHLY;BYDAY=MO;BYSETPOS=2']],
  ['days that are left out', ['RRULE:FREQ=DAILY', 'EXDATE;VALUE=DATE:20260316']],
  ['further days', ['RDATE;VALUE=DATE:20260320']],
])('%s: its days are fixed', (_, lines) => {
  const text = entry('BEGIN:VEVENT', 'UID:u1', 'SUMMARY:s', 'DTSTART;VALUE=DATE:20260314', ...lines, 'END:VEVENT')
  expect(readEntry(text, 'UTC')).toMatchObject({ isFixed: true, dates: { start: '2026-03-14' } })
})

test('one repetition on another day: the entry is read, its days are fixed, and the other day stays', () => {
  const text = entry(
    ...['BEGIN:VEVENT', 'UID:u1', 'SUMMARY:moved', 'RECURRENCE-ID;VALUE=DATE:20260321'],
    ...['DTSTART;VALUE=DATE:20260322', 'END:VEVENT'],
    ...['BEGIN:VEVENT', 'UID:u1', 'SUMMARY:Walk', 'DTSTART;VALUE=DATE:20260314', 'RRULE:FREQ=WEEKLY', 'END:VEVENT'],
  )
  const read = readEntry(text, 'UTC')!
  expect(read).toMatchObject({ text: 'Walk', isFixed: true })
  const after = writeEntry({ ...planned(read), text: 'Long walk' }, { ...writing, before: text })
  expect(after).toContain('SUMMARY:moved')
  expect(readEntry(after, 'UTC')).toMatchObject({ text: 'Long walk', dates: read.dates })
})

test.each([
  ['nothing', ''],
  ['no calendar', 'BEGIN:VCARD\r\nEND:VCARD'],
  ['an event without a day', entry('BEGIN:VEVENT', 'UID:1', 'SUMMARY:s', 'END:VEVENT')],
  ['an event without a uid', entry('BEGIN:VEVENT', 'DTSTART;VALUE=DATE:20260314', 'END:VEVENT')],
  ['a zone alone', entry('BEGIN:VTIMEZONE', 'TZID:Own', 'END:VTIMEZONE')],
])('%s is no entry', (_, text) => {
  expect(readEntry(text, 'UTC')).toBeNull()
})
