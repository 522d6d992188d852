import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { Bounds } from '../../src/core/layout/boxes'
import { FreeSpace } from '../../src/core/ways/free-space'
import { Ground, type Place, passesThrough } from '../../src/core/ways/ground'
import { type Point, shortWay } from '../../src/core/ways/way'

/** Boxes on a coarse grid, so that edges often lie at equal heights; none on another, 4 px and more between them. */
const boxes = fc
  .uniqueArray(fc.record({ column: fc.nat(6), row: fc.nat(9) }), {
    minLength: 2,
    maxLength: 40,
    selector: ({ column, row }) => `${column} ${row}`,
  })
  .chain((cells) =>
    fc.tuple(
      ...cells.map(({ column, row }) =>
        fc
          .record({
            x: fc.nat(40),
            y: fc.nat(8),
            width: fc.integer({ min: 20, max: 86 }),
            height: fc.constantFrom(18, 20),
          })
          .map(({ x, y, width, height }) => ({ x: column * 130 + x, y: row * 32 + y, width, height })),
      ),
    ),
  )

const length = (points: readonly Point[]) =>
  points.reduce(
    (sum, point, i) => (i === 0 ? 0 : sum + Math.hypot(point.x - points[i - 1]!.x, point.y - points[i - 1]!.y)),
    0,
  )

const isClear = (points: readonly Point[], all: readonly Bounds[], inset = 1e-6) =>
  points.every((point, i) => i === 0 || !all.some((box) => passesThrough(points[i - 1]!, point, box, -inset)))

/** The length of the shortest way, over all corners that see one another (Dijkstra). */
function shortest(from: Point, to: Point, all: readonly Bounds[]): number {
  const corners = [
    from,
    to,
    ...all.flatMap(({ x, y, width, height }) => [
      { x, y },
      { x: x + width, y },
      { x, y: y + height },
      { x: x + width, y: y + height },
    ]),
  ]
  const far = corners.map(() => Number.POSITIVE_INFINITY)
  far[0] = 0
  const open = new Set(corners.keys())
  while (open.has(1)) {
    const at = [...open].reduce((best, i) => (far[i]! < far[best]! ? i : best))
    open.delete(at)
    for (const i of open) {
      const reach = far[at]! + length([corners[at]!, corners[i]!])
      if (reach < far[i]! && isClear([corners[at]!, corners[i]!], all)) far[i] = reach
    }
  }
  return far[1]!
}

const place = (box: Bounds): Place => ({ ...box, busy: { left: false, right: false } })
const outside = { x: -50, y: -50, cost: 0 }

describe('free space', () => {
  test('is cut into tiles that lie on no box and on no other, and that leave nothing out', () => {
    fc.assert(
      fc.property(boxes, fc.array(fc.tuple(fc.nat(9000), fc.nat(3400)), { maxLength: 30 }), (all, points) => {
        const space = new FreeSpace(all)
        expect(space.tiles.length).toBeLessThanOrEqual(3 * all.length + 1)
        for (const [x, y] of points.map(([x, y]) => [x / 10 + 0.03, y / 10 + 0.03] as const)) {
          const inBox = all.some((box) => x > box.x && x < box.x + box.width && y > box.y && y < box.y + box.height)
          const at = space.tiles.filter(
            ({ left, right, top, bottom }) => x > left && x < right && y > top && y < bottom,
          )
          expect(at.length).toBe(inBox ? 0 : 1)
          expect(space.at(x, y)).toBe(at[0] ?? null)
        }
      }),
      { numRuns: 100 },
    )
  })
})

describe('a way', () => {
  test('is found between any two points in it, passes through nothing, and is hardly longer than the shortest', () => {
    let [all, best] = [0, 0]
    fc.assert(
      fc.property(boxes, fc.nat(100), (found, which) => {
        const box = found[which % found.length]!
        const end = { x: box.x + box.width / 2, y: box.y + box.height + 2, cost: 0 }
        const way = shortWay(new FreeSpace(found), [outside], [end], { tiles: 10_000 })!
        expect([way[0], way.at(-1)]).toEqual([
          { x: -50, y: -50 },
          { x: end.x, y: end.y },
        ])
        expect(isClear(way, found)).toBe(true)
        const least = shortest(outside, end, found)
        expect(length(way)).toBeGreaterThan(least - 1e-6)
        all += length(way)
        best += least
      }),
      { numRuns: 60 },
    )
    expect(all / best).toBeLessThan(1.03)
  })

  test('leads from the edge of one box to that of another, clear of both and of all others', () => {
    fc.assert(
      fc.property(boxes, (all) => {
        const [from, to] = [all[0]!, all[1]!]
        const ground = new Ground(() => all)
        const way = ground.way(place(from), place(to))!
        expect(isClear(way.points, all, 0.4)).toBe(true)
        const isAtEdge = ({ x, y }: Point, box: Bounds) =>
          Math.min(
            Math.abs(x - box.x),
            Math.abs(x - box.x - box.width),
            Math.abs(y - box.y),
            Math.abs(y - box.y - box.height),
          ) < 1e-6
        expect([isAtEdge(way.points[0]!, from), isAtEdge(way.points.at(-1)!, to)]).toEqual([true, true])
      }),
      { numRuns: 150 },
    )
  })

  test('is given up where patience ends, and where boxes on one another shut it in', () => {
    const wall = (x: number, y: number, width: number, height: number) => ({ x, y, width, height })
    const room = [wall(0, 0, 200, 20), wall(0, 180, 200, 20), wall(0, 10, 20, 180), wall(180, 10, 20, 180)]
    const inside = { x: 100, y: 100, cost: 0 }
    expect(shortWay(new FreeSpace(room), [outside], [inside], { tiles: 1000 })).toBeNull()
    const open = new FreeSpace(room.slice(1))
    expect(shortWay(open, [outside], [inside], { tiles: 2 })).toBeNull()
    expect(shortWay(open, [outside], [inside], { tiles: 1000 })).not.toBeNull()
  })
})
