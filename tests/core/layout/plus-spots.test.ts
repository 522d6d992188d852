import fc from 'fast-check'
import { expect, test } from 'vitest'
import { plusSpots } from '../../../src/core/layout/plus-spots'
import type { Point } from '../../../src/core/records/place'
import { buildScene } from '../../../src/core/scene/scene'
import { CONTEXT } from '../gardens'
import { ground, MAP, recordsOf, sapling } from './forests'

test('what is offered at a topic covers no words, at any zoom, and is nearly always offered', () => {
  const tally = { asked: 0, child: 0, sibling: 0, link: 0 }
  fc.assert(
    fc.property(
      ground,
      fc.array(sapling, { minLength: 5, maxLength: 40 }),
      fc.constantFrom(5, 10, 11, 18),
      (map, saplings, radius) => {
        const { layout, near } = buildScene(recordsOf(map, saplings), MAP, CONTEXT)
        for (const box of layout.boxes) {
          const { child, sibling, link } = plusSpots(box, radius, near)
          const covers = ({ x, y }: Point) =>
            layout.boxes.filter(
              (other) =>
                x + radius > other.x &&
                x - radius < other.x + other.width &&
                y + radius > other.y &&
                y - radius < other.y + other.height,
            )
          for (const spot of [child, sibling, link]) expect(spot ? covers(spot) : []).toEqual([])
          for (const [one, other] of [
            [child, sibling],
            [child, link],
            [sibling, link],
          ])
            if (one && other) expect(Math.hypot(one.x - other.x, one.y - other.y)).toBeGreaterThanOrEqual(2 * radius)
          tally.asked++
          if (child) tally.child++
          if (sibling) tally.sibling++
          if (link) tally.link++
        }
      },
    ),
    { numRuns: 100 },
  )
  expect(tally.child / tally.asked).toBeGreaterThan(0.98)
  expect(tally.sibling / tally.asked).toBeGreaterThan(0.9)
  expect(tally.link / tally.asked).toBeGreaterThan(0.8)
})
