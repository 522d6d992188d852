import fc from 'fast-check'
import { expect, test } from 'vitest'
import { addTopic } from '../../../src/core/commands/add-topic'
import { evenSides } from '../../../src/core/commands/sides'
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
