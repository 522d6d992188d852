import { expect, test } from 'vitest'
import { sayWhen } from '../../../src/views/app/when'

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
