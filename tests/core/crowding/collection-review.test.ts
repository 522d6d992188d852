import { expect, test } from 'vitest'
import { setLimits } from '../../../src/core/commands/set-limits'
import { splitOffAll } from '../../../src/core/commands/split-off'
import { collectionReview, splitNumbers } from '../../../src/core/crowding/collection-review'
import { COLLECTION, CONTEXT, Garden } from '../gardens'

const dense = (name: string, branches: number) =>
  `${name}\n${Array.from({ length: branches }, (_, i) => `${name} branch ${i}\n${Array.from({ length: 12 }, (__, j) => `  ${name} topic ${i} ${j}`).join('\n')}`).join('\n')}`

test('maps of a collection are reviewed worst first, and split off as one change as was said', () => {
  const garden = new Garden()
  const maps = [garden.grow('Small\na\nb'), garden.grow(dense('Large', 9)), garden.grow(dense('Larger', 14))]
  const asked = maps.map((map) => ({ map, topics: [...garden.records.topicsOf(map)].length }))
  const review = collectionReview(garden.records, asked, CONTEXT, garden.newIds)
  expect(review.map(({ map }) => map)).toEqual([maps[2], maps[1]])
  for (const { before, after, words } of review) {
    expect(after.largest).toBeLessThan(before.largest)
    expect(after.largest).toBeLessThanOrEqual(60)
    expect(words).not.toBe('')
  }
  const parts = review.flatMap((crowded) => crowded.parts.map(({ part }) => part))
  const expected = review.map(({ after }) => after)
  garden.do((r, m) => splitOffAll(r, { parts }, m))
  const now = review.map(({ map }) => splitNumbers(garden.records, map, [], CONTEXT, garden.newIds).largest)
  for (const [i, largest] of now.entries()) expect(largest).toBeLessThanOrEqual(expected[i]!.largest)
  expect(garden.records.count('map')).toBe(3 + parts.length)
  // As many topics as there is time for: the largest maps come first.
  expect(collectionReview(garden.records, asked, CONTEXT, garden.newIds, 0)).toEqual([])
})

test('a person says from when on a map is crowded', () => {
  const garden = new Garden()
  const map = garden.grow(dense('Large', 3))
  const review = () =>
    collectionReview(garden.records, [{ map, topics: 40 }], CONTEXT, garden.newIds).map(({ after }) => after.largest)
  expect(review()).toEqual([])
  garden.do((r, m) => setLimits(r, { collection: COLLECTION, limits: { topics: 20, px: 4 } }, m))
  const [largest] = review()
  expect(largest).toBeLessThanOrEqual(20)
  garden.do((r, m) => setLimits(r, { collection: COLLECTION, limits: null }, m))
  expect(review()).toEqual([])
})
