import { expect, test } from 'vitest'
import { waitsOf } from '../../../src/core/network/waiting'

test('what waits is told in words, what others wait for first, and what does not wait is not told', () => {
  const nothing = { comments: 0, overdue: 0, crowded: 0, stale: 0, site: { behind: 0, maps: null } }
  expect(waitsOf(nothing)).toEqual([])
  expect(
    waitsOf({ comments: 2, overdue: 1, crowded: 4, stale: 3, site: { behind: 1, maps: null } }).map(
      ({ words }) => words,
    ),
  ).toEqual([
    '1 task is overdue',
    '2 comments are new to you',
    '4 maps are hard to read',
    '3 web links lead nowhere',
    'the site is 1 change behind',
  ])
  expect(waitsOf({ ...nothing, crowded: null, site: null })).toEqual([])
})
