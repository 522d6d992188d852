import { expect, test } from 'vitest'
import { calendarHere, sayDays, sayWhen } from '../../../src/views/app/when'

test('a moment is said as people say it, in their language', () => {
  const now = new Date(2026, 2, 12, 16, 0)
  const say = (at: Date, language = 'en-GB') => sayWhen(at, now, language)
  expect(say(new Date(2026, 2, 12, 14, 20))).toBe('today 14:20')
  expect(say(new Date(2026, 2, 11, 23, 59))).toBe('yesterday 23:59')
  expect(say(new Date(2026, 2, 3))).toBe('3 March')
  expect(say(new Date(2025, 11, 31))).toBe('31 December 2025')
  expect(say(new Date(2026, 2, 12, 9, 5), 'de')).toBe('heute 09:05')
  expect(say(new Date(2026, 2, 3), 'fr')).toBe('3 mars')
})

test('days are said in the words of the browser, whatever the zone', () => {
  expect(sayDays({ start: '2026-05-04', end: null }, 'en-GB')).toBe('4 May 2026')
  expect(sayDays({ start: '2026-05-04', end: '2026-06-03' }, 'de')).toBe('4. Mai 2026 – 3. Juni 2026')
})

test('drawings write days as the browser does, and know today', () => {
  const german = calendarHere(new Date(2026, 4, 9), 'de')
  expect([
    german.today,
    german.dayAndMonth('2026-05-09'),
    german.month('2026-10-01'),
    german.wholeDay('2026-05-09'),
  ]).toEqual(['2026-05-09', '9. Mai', 'Okt', '9. Mai 2026'])
  expect(calendarHere(new Date(2026, 4, 9))).toBe(calendarHere(new Date(2026, 4, 9, 12)))
})
