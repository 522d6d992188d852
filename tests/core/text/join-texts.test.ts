import { expect, test } from 'vitest'
import { joinTexts } from '../../../src/core/text/join-texts'
import { titleOf } from '../../../src/core/text/title'

test('give titles and are joined with an empty line between', () => {
  expect(titleOf('  First line \nsecond')).toBe('First line')
  expect(titleOf('x'.repeat(600))).toHaveLength(500)
  expect(joinTexts('a\n\n', '\nb')).toBe('a\n\nb')
  expect(joinTexts(' ', 'b')).toBe('b')
})
