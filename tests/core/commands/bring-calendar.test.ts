import { expect, test } from 'vitest'
import { bringCalendar } from '../../../src/core/commands/bring-calendar'
import { type CalendarItem, readCalendar, writeCalendar } from '../../../src/core/formats/icalendar'
import { plot } from '../gardens'

const item = (text: string, part: Partial<CalendarItem>): CalendarItem => ({
  uid: text,
  text,
  note: '',
  dates: null,
  task: null,
  url: '',
  ...part,
})

test('a calendar becomes a branch in the order of its days', () => {
  const { garden, map } = plot()
  const written = writeCalendar(
    'Season',
    [
      item('Open day', {
        dates: { start: '2026-05-10', end: '2026-05-12' },
        note: 'Bring chairs.',
        url: 'https://example.org/open',
      }),
      item('Report', { dates: { start: '2026-02-01', end: null }, task: 'begun' }),
    ],
    '2026-01-01T00:00:00Z',
  )
  const { name, items } = readCalendar(written)
  const { select } = garden.do((r, m) => bringCalendar(r, { map, name, items }, m))
  const branch = garden.records.need('topic', select[0]!)
  expect(branch.text).toBe('Season')
  const [report, open] = garden.records.children(branch.id)
  expect(report).toMatchObject({ text: 'Report', task: 'begun', dates: { start: '2026-02-01', end: null } })
  expect(open).toMatchObject({ text: 'Open day', task: null, dates: { start: '2026-05-10', end: '2026-05-12' } })
  expect(garden.records.need('note', open!.note).text).toBe('Bring chairs.')
  expect(garden.records.weblinks(open!.id)).toMatchObject([{ url: 'https://example.org/open' }])
  expect(() => garden.do((r, m) => bringCalendar(r, { map, name, items: [] }, m))).toThrow()
})
