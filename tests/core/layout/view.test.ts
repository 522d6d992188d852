import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { type Bounds, boundsOf } from '../../../src/core/layout/boxes'
import {
  firstView,
  fitted,
  fittingScale,
  isWhole,
  type MapView,
  type Sights,
  viewAfterChange,
  viewAfterResize,
  visiblePart,
} from '../../../src/core/layout/view'

const whole = (min: number, max: number) => fc.integer({ min, max })
const box = fc.record({ x: whole(-3000, 3000), y: whole(-3000, 3000), width: whole(20, 300), height: whole(14, 90) })
const size = fc.record({ width: whole(300, 1_600), height: whole(250, 1_000) })
const sights = fc.array(box, { minLength: 1, maxLength: 30 }).map(
  (boxes): Sights => ({
    boxes,
    bounds: boundsOf(boxes),
    beginning: boundsOf(boxes.slice(0, 4)),
    readable: 0.6,
  }),
)
const view = fc.record({ x: whole(-900, 900), y: whole(-900, 900), k: fc.double({ min: 0.2, max: 2, noNaN: true }) })

const isSeen = (bounds: Bounds, part: Bounds) =>
  bounds.x < part.x + part.width &&
  part.x < bounds.x + bounds.width &&
  bounds.y < part.y + part.height &&
  part.y < bounds.y + bounds.height
/** Whether two views differ by no more than the margin that what is revealed has. */
const near = (a: MapView, b: MapView) => a.k === b.k && Math.abs(a.x - b.x) <= 24 && Math.abs(a.y - b.y) <= 24
const seen = (at: MapView, room: { width: number; height: number }, boxes: readonly Bounds[]) =>
  boxes.filter((each) => isSeen(each, visiblePart(at, room)))

describe('a map is first seen', () => {
  test('whole where that can be read, else with its first level, else as it was last', () => {
    fc.assert(
      fc.property(size, sights, view, (room, of, last) => {
        const first = firstView(room, of, last)
        if (fittingScale(room, of.bounds) >= of.readable) {
          expect(first).toEqual(fitted(room, of.bounds))
          expect(isWhole(first, room, of.bounds)).toBe(true)
        } else if (fittingScale(room, of.beginning!) >= of.readable) {
          expect(isWhole(first, room, of.beginning!)).toBe(true)
          expect(first.k).toBeGreaterThanOrEqual(of.readable)
        } else expect(first).toBe(last)
      }),
    )
  })

  test('around its root where nothing is known of it', () => {
    const list = Array.from({ length: 300 }, (_, i) => ({ x: 80, y: i * 30 - 4_500, width: 120, height: 24 }))
    const root = { x: -50, y: -20, width: 100, height: 40 }
    const all = boundsOf([root, ...list])
    const first = firstView(
      { width: 900, height: 700 },
      { boxes: [root, ...list], bounds: all, beginning: all, readable: 0.6 },
      null,
    )
    expect(first.k).toBe(0.8)
    expect(seen(first, { width: 900, height: 700 }, [root])).toEqual([root])
    expect(seen(first, { width: 900, height: 700 }, list).length).toBeGreaterThan(20)
  })
})

describe('what is seen stays in view', () => {
  test('after a resize: all of it where it can be read, else the topic at hand, and never nothing', () => {
    fc.assert(
      fc.property(size, size, sights, view, fc.nat(29), (before, after, of, at, chosen) => {
        const dearest = of.boxes[chosen % of.boxes.length]!
        const around = boundsOf([dearest, of.boxes[0]!])
        const next = viewAfterResize(at, before, after, of, [around, dearest])
        if (isWhole(at, before, of.bounds) && fittingScale(after, of.bounds) >= of.readable)
          expect(isWhole(next, after, of.bounds)).toBe(true)
        const were = seen(at, before, of.boxes)
        if (were.length > 0) expect(seen(next, after, of.boxes).length).toBeGreaterThan(0)
        if (were.includes(dearest)) expect(seen(next, after, [dearest])).toEqual([dearest])
        // There and back, something that was seen is seen again.
        const back = viewAfterResize(next, after, before, of, [around, dearest])
        if (were.includes(dearest)) expect(seen(back, before, [dearest])).toEqual([dearest])
        // Where there is more room nothing moves, as a second press may follow the first that closed the sheet.
        const isLarger = after.width >= before.width && after.height >= before.height
        const isAround = isWhole(at, before, around)
        if (isLarger && isAround && !isWhole(at, before, of.bounds)) expect(near(next, at)).toBe(true)
      }),
      { numRuns: 1_000 },
    )
  })

  test('while topics are added: all of it as long as it can be read, then what is written', () => {
    fc.assert(
      fc.property(size, fc.array(box, { minLength: 2, maxLength: 30 }), (room, boxes) => {
        let at = fitted(room, boundsOf(boxes.slice(0, 1)))
        let wasWhole = true
        boxes.slice(1).forEach((written, i) => {
          const held = boxes.slice(0, i + 2)
          const of: Sights = { boxes: held, bounds: boundsOf(held), beginning: null, readable: 0.6 }
          at = viewAfterChange(at, room, of, wasWhole, [boundsOf([held[0]!, written]), written])
          if (wasWhole && fittingScale(room, of.bounds) >= of.readable) expect(isWhole(at, room, of.bounds)).toBe(true)
          expect(seen(at, room, [written])).toEqual([written])
          wasWhole = isWhole(at, room, of.bounds)
        })
      }),
    )
  })
})
