import fc from 'fast-check'
import { expect, test } from 'vitest'
import { beginnings, nextTime, nthOf, timesOf, weekdayOf } from '../../../src/core/dates/repeating'
import { repeatWords, timeWords } from '../../../src/core/dates/words'
import type { Repeats } from '../../../src/core/records/dates'
import { dayNumber, ENGLISH, isoDay } from '../../../src/core/text/days'

const some = (start: string, repeats: Repeats, count = 5, from = start) => {
  const days: string[] = []
  for (const day of beginnings(start, repeats, from, '2100-01-01')) if (days.push(day) === count) break
  return days
}

test('days, weeks, months and years repeat as a calendar says', () => {
  expect(some('2026-03-02', { every: 3, unit: 'day' }, 3)).toEqual(['2026-03-02', '2026-03-05', '2026-03-08'])
  // Monday and Thursday of every other week, begun on a Tuesday.
  expect(some('2026-03-03', { every: 2, unit: 'week', weekdays: [3, 0] }, 4)).toEqual([
    '2026-03-05',
    '2026-03-16',
    '2026-03-19',
    '2026-03-30',
  ])
  expect(some('2026-01-31', { every: 1, unit: 'month' }, 4)).toEqual([
    '2026-01-31',
    '2026-03-31',
    '2026-05-31',
    '2026-07-31',
  ])
  // The second Tuesday, and the last one.
  expect(some('2026-03-10', { every: 1, unit: 'month', nth: 2 }, 3)).toEqual(['2026-03-10', '2026-04-14', '2026-05-12'])
  expect(some('2026-03-31', { every: 1, unit: 'month', nth: -1 }, 3)).toEqual([
    '2026-03-31',
    '2026-04-28',
    '2026-05-26',
  ])
  expect(some('2024-02-29', { every: 1, unit: 'year' }, 3)).toEqual(['2024-02-29', '2028-02-29', '2032-02-29'])
  expect(some('2026-03-02', { every: 1, unit: 'day', until: '2026-03-04' })).toHaveLength(3)
})

test('what is asked for late is what one comes to by counting from the beginning', () => {
  const repeats = fc.record({
    every: fc.integer({ min: 1, max: 20 }),
    unit: fc.constantFrom('day', 'week', 'month', 'year'),
    weekdays: fc.option(fc.uniqueArray(fc.integer({ min: 0, max: 6 }), { minLength: 1 }), { nil: undefined }),
    nth: fc.option(fc.constantFrom(-1 as const, 1, 2, 3, 4, 5), { nil: undefined }),
  }) as fc.Arbitrary<Repeats>
  fc.assert(
    fc.property(repeats, fc.integer({ min: -30_000, max: 40_000 }), fc.nat(4_000), (repeated, first, later) => {
      const [start, from, to] = [isoDay(first), isoDay(first + later), isoDay(first + later + 900)]
      const all = [...beginnings(start, repeated, start, to)]
      expect([...beginnings(start, repeated, from, to)]).toEqual(all.filter((day) => day >= from))
      for (const day of all)
        if (repeated.unit === 'month' && repeated.nth === undefined) expect(day.slice(-2)).toBe(start.slice(-2))
        else if (repeated.unit === 'week' && repeated.weekdays) expect(repeated.weekdays).toContain(weekdayOf(day))
        else if (repeated.unit === 'day') expect((dayNumber(day) - first) % repeated.every).toBe(0)
    }),
  )
})

test('the next time is as long as this one, and what never comes is not looked for endlessly', () => {
  const dates = { start: '2026-03-02', end: '2026-03-04', from: '09:00', to: '12:00' }
  const weekly = { ...dates, repeats: { every: 1, unit: 'week' as const } }
  expect(nextTime(weekly)).toEqual({ ...weekly, start: '2026-03-09', end: '2026-03-11' })
  expect(nextTime(dates)).toBeNull()
  expect(nextTime({ ...weekly, repeats: { every: 1, unit: 'week', until: '2026-03-08' } })).toBeNull()
  // What goes on from before is among the times.
  expect(timesOf(weekly, '2026-03-11', '2026-03-20', 9).map(({ start }) => start)).toEqual(['2026-03-09', '2026-03-16'])
  const began = performance.now()
  expect(some('2026-01-30', { every: 12, unit: 'month', nth: 5 }, 3, '2090-01-01')).not.toHaveLength(0)
  expect(nextTime({ start: '2026-02-01', end: null, repeats: { every: 400, unit: 'year' } })).toMatchObject({
    start: '2426-02-01',
  })
  expect(performance.now() - began).toBeLessThan(500)
  expect(nthOf('2026-03-10')).toBe(2)
})

test('it is said in words', () => {
  const words = (repeats: Repeats) => repeatWords(repeats, '2026-03-10', ENGLISH)
  expect(words({ every: 1, unit: 'day' })).toBe('every day')
  expect(words({ every: 2, unit: 'week', weekdays: [0, 3], until: '2026-06-03' })).toBe(
    'every 2 weeks on Monday and Thursday until 3 Jun 2026',
  )
  expect(words({ every: 1, unit: 'month', nth: -1 })).toBe('every month on the last Tuesday')
  expect([timeWords({ from: '09:00', to: '12:30' }), timeWords({ from: '09:00' }), timeWords({})]).toEqual([
    '09:00 to 12:30',
    '09:00',
    '',
  ])
})
