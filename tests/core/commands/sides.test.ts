import fc from 'fast-check'
import { expect, test } from 'vitest'
import { addTopic } from '../../../src/core/commands/add-topic'
import { evened, evenSides, type SidedBranch } from '../../../src/core/commands/sides'
import { type Side, sideOf } from '../../../src/core/records/place'
import { Garden } from '../gardens'

const weigh = (weights: readonly number[], sides: readonly Side[]) =>
  Math.abs(weights.reduce((sum, weight, i) => sum + (sides[i] === 'right' ? weight : -weight), 0))

test('sides are cut where they are most even, in reading order, around what is held', () => {
  expect(evenSides([3, 1, 1, 3])).toEqual(['right', 'right', 'left', 'left'])
  expect(evenSides([5])).toEqual(['right'])
  const held = fc.option(fc.constantFrom<Side>('left', 'right'), { nil: null })
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 1, max: 9 }), held), { minLength: 1, maxLength: 12 }),
      (branches) => {
        const weights = branches.map(([weight]) => weight)
        const holds = branches.map(([, hold]) => hold)
        const sides = evenSides(weights, holds)
        holds.forEach((hold, i) => {
          if (hold) expect(sides[i]).toBe(hold)
        })
        const free = sides.filter((_, i) => !holds[i])
        expect(free.lastIndexOf('right')).toBeLessThan(free.includes('left') ? free.indexOf('left') : free.length)
        for (let cut = 1; cut <= weights.length; cut++) {
          const other = weights.map((_, i): Side => holds[i] ?? (i < cut ? 'right' : 'left'))
          expect(weigh(weights, sides)).toBeLessThanOrEqual(weigh(weights, other))
        }
      },
    ),
  )
})

test('both sides stay about even as first-level topics are added', () => {
  const garden = new Garden()
  const map = garden.grow('Root')
  let last = garden.topic('Root')
  for (let i = 0; i < 12; i++)
    [last] = garden.do((records, newIds) =>
      addTopic(records, { parent: garden.topic('Root'), after: i === 0 ? 'last' : last, text: `${i}` }, newIds),
    ).select as [typeof last]
  const sides = garden.records.children(garden.records.root(map)!.id).map(sideOf)
  expect(Math.abs(sides.filter((side) => side === 'left').length - 6)).toBeLessThanOrEqual(2)
  expect(evenSides([5, 1, 1, 3])).toEqual(['right', 'left', 'left', 'left'])
  expect(evenSides([])).toEqual([])
})

const branch = fc.record({
  rows: fc.integer({ min: 1, max: 9 }),
  side: fc.constantFrom<Side>('left', 'right'),
  held: fc.boolean(),
})
const height = (branches: readonly SidedBranch[], sides: readonly Side[], side: Side) =>
  branches.reduce((sum, { rows }, i) => sum + (sides[i] === side ? rows : 0), 0)
const higher = (branches: readonly SidedBranch[], sides: readonly Side[]) =>
  Math.max(height(branches, sides, 'left'), height(branches, sides, 'right'))
const moves = (branches: readonly SidedBranch[], sides: readonly Side[]) =>
  branches.filter(({ side }, i) => side !== sides[i]).length

/** Every way to share branches out, with what is held where it is. */
function everyWay(branches: readonly SidedBranch[], inOrder: boolean): Side[][] {
  const ways: Side[][] = []
  for (let bits = 0; bits < 1 << branches.length; bits++) {
    const sides = branches.map((_, i): Side => ((bits >> i) & 1 ? 'right' : 'left'))
    if (branches.some(({ held, side }, i) => held && side !== sides[i])) continue
    const free = sides.filter((_, i) => !branches[i]!.held)
    if (inOrder && free.includes('left') && free.lastIndexOf('right') > free.indexOf('left')) continue
    ways.push(sides)
  }
  return ways
}

test('sides are evened out with as few branches as will do, as trying every way shows', () => {
  fc.assert(
    fc.property(
      fc.array(branch, { minLength: 1, maxLength: 9 }),
      fc.boolean(),
      fc.constantFrom(4 / 3, 1),
      (branches, inOrder, tolerated) => {
        const sides = evened(branches, inOrder, tolerated)
        const ways = everyWay(branches, inOrder)
        const as = branches.map(({ side }) => side)
        const least = Math.max(2, Math.min(...ways.map((way) => higher(branches, way))))
        const good = ways.filter((way) => higher(branches, way) <= tolerated * least)
        const fewest = Math.min(...good.map((way) => moves(branches, way)))
        branches.forEach(({ held, side }, i) => {
          if (held) expect(sides[i]).toBe(side)
        })
        if (higher(branches, as) < 2) {
          expect(sides).toEqual(as)
          return
        }
        expect(higher(branches, sides)).toBeLessThanOrEqual(tolerated * least)
        expect(moves(branches, sides)).toBe(fewest)
        const best = good.filter((way) => moves(branches, way) === fewest)
        expect(higher(branches, sides)).toBe(Math.min(...best.map((way) => higher(branches, way))))
      },
    ),
    { numRuns: 1_000 },
  )
})

test('four first-level topics stand two on each side, and many branches are shared out in no time', () => {
  const garden = new Garden()
  garden.grow('Root')
  let last = garden.topic('Root')
  for (let i = 0; i < 4; i++)
    [last] = garden.do((records, newIds) =>
      addTopic(records, { parent: garden.topic('Root'), after: i === 0 ? 'last' : last, text: `${i}` }, newIds),
    ).select as [typeof last]
  expect(garden.records.children(garden.topic('Root')).map(sideOf)).toEqual(['right', 'right', 'left', 'left'])
  const many = Array.from({ length: 900 }, (_, i): SidedBranch => ({ rows: 1 + (i % 20), side: 'right', held: false }))
  const sides = evened(many, false)
  expect(higher(many, sides)).toBeLessThan((900 * 10.5 * 4) / 6 + 60)
  // With one side all empty, and more branches than anybody makes by hand.
  const most = Array.from({ length: 10_000 }, (): SidedBranch => ({ rows: 1, side: 'right', held: false }))
  for (const inOrder of [true, false]) expect(higher(most, evened(most, inOrder))).toBeLessThanOrEqual(6_667)
})
