import { expect, test } from 'vitest'
import { setDates } from '../../../src/core/commands/set-dates'
import type { Dates } from '../../../src/core/records/dates'
import { plot } from '../gardens'

test('a topic gets a day or a span, loses it, and is refused what is neither', () => {
  const { garden } = plot()
  const topic = garden.topic('Prune')
  const set = (dates: Dates | null) => garden.do((r, n) => setDates(r, { topics: [topic], dates }, n))
  const dates = () => garden.records.need('topic', topic).dates
  expect(set({ start: '2026-02-28', end: null }).change.label).toBe('Date Prune')
  set({ start: '2026-02-28', end: '2026-03-04' })
  expect(dates()).toEqual({ start: '2026-02-28', end: '2026-03-04' })
  expect(() => set({ start: '2026-03-04', end: '2026-03-03' })).toThrow('A span of days ends after it begins.')
  expect(() => set({ start: '2026-02-30', end: null })).toThrow()
  expect(dates()).toEqual({ start: '2026-02-28', end: '2026-03-04' })
  expect(set(null).change.label).toBe('Take the date off Prune')
  expect(dates()).toBeNull()
})
