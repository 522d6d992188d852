import { expect, test } from 'vitest'
import { counted } from '../../../src/core/text/counted'

test.each([
  [0, '0 topics'],
  [1, '1 topic'],
  [2, '2 topics'],
])('%i is said in the right number', (count, words) => {
  expect(counted(count, 'topic', 'topics')).toBe(words)
})
