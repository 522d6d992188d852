import { expect, test } from 'vitest'
import { waitsOf } from '../../../src/core/network/waiting'

test('what waits is told in words, what others wait for first, and what does not wait is not told', () => {
  expect(waitsOf({ comments: 0, overdue: 0, stale: 0, site: { behind: 0, maps: null } }, 0)).toEqual([])
  expect(
    waitsOf({ comments: 2, overdue: 1, stale: 3, site: { behind: 1, maps: null } }, 4).map(({ words }) => words),
  ).toEqual([
    '1 task is overdue',
    '2 comments are new to you',
    '4 maps are crowded',
    '3 web links lead nowhere',
    'the site is 1 change behind',
  ])
  expect(waitsOf({ comments: 0, overdue: 0, stale: 0, site: null }, 1)).toEqual([
    { place: 'crowding', count: 1, words: '1 map is crowded' },
  ])
})
