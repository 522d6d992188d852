import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { boxContour, type Contour, contourAbove, Row } from '../../../src/core/layout/contour'
import { END, Lengths } from '../../../src/core/layout/lengths'

const lengths = new Lengths(0)

/** How far a contour reaches at a distance along the growth; null beyond its end. */
function edgeAt(first: number, distance: number): number | null {
  let along = 0
  let across = 0
  for (let cell = first; cell !== END; cell = lengths.next[cell]!) {
    if (distance < lengths.far[cell]! + along) return lengths.edge[cell]! + across
    along += lengths.along[cell]!
    across += lengths.across[cell]!
  }
  return null
}

function setRow(branches: readonly Contour[], gap: number): { row: Row; positions: number[] } {
  const row = new Row(lengths, gap)
  return { row, positions: branches.map((branch) => row.add(branch)) }
}

/** Where a contour reaches, at every distance that counts here. */
const reachOf = ({ first, last }: Contour) =>
  [first, last].map((side) => Array.from({ length: 200 }, (_, distance) => edgeAt(side, distance)))

const box = fc.record({
  length: fc.integer({ min: 1, max: 60 }),
  before: fc.integer({ min: 1, max: 40 }),
  after: fc.integer({ min: 1, max: 40 }),
})
const contourFrom = ({ length, before, after }: { length: number; before: number; after: number }) =>
  boxContour(lengths, length, before, after)

/** Outlines of one to three levels. */
const contours: fc.Arbitrary<Contour> = fc
  .tuple(box, fc.array(fc.tuple(box, fc.array(box, { maxLength: 3 })), { maxLength: 4 }))
  .map(([head, below]) => {
    const children = below.map(([child, leaves]) => withRow(child, leaves.map(contourFrom)))
    return withRow(head, children)
  })

function withRow(head: { length: number; before: number }, children: Contour[]): Contour {
  if (children.length === 0) return boxContour(lengths, head.length, head.before, head.before)
  const { row } = setRow(children, 3)
  return contourAbove(lengths, head.length, head.before, 5, row)
}

describe('a row of branches', () => {
  test('keeps the gap between all of them at every distance, and no more than it must', () => {
    fc.assert(
      fc.property(
        fc.array(contours, { minLength: 2, maxLength: 7 }),
        fc.integer({ min: 0, max: 12 }),
        (branches, gap) => {
          const reach = branches.map(reachOf)
          const { positions } = setRow(branches, gap)
          for (let i = 1; i < branches.length; i++) {
            let tightest = Number.POSITIVE_INFINITY
            for (let j = 0; j < i; j++)
              for (let distance = 0; distance < 200; distance++) {
                const above = reach[j]![1]![distance] ?? null
                const below = reach[i]![0]![distance] ?? null
                if (above === null || below === null) continue
                const room = below + positions[i]! - (above + positions[j]!)
                expect(room).toBeGreaterThanOrEqual(gap - 1e-9)
                tightest = Math.min(tightest, room)
              }
            expect(tightest).toBeCloseTo(gap, 6)
          }
        },
      ),
      { numRuns: 150 },
    )
  })

  test('has the contour of all of them together, and leaves theirs as they were', () => {
    fc.assert(
      fc.property(fc.array(contours, { minLength: 1, maxLength: 6 }), (branches) => {
        const before = branches.map(reachOf)
        const { row, positions } = setRow(branches, 4)
        const { lastShift } = row
        expect(branches.map(reachOf)).toEqual(before)
        for (let distance = 0; distance < 200; distance += 3) {
          const reach = (side: 'first' | 'last') =>
            branches.flatMap((branch, i) => {
              const edge = edgeAt(branch[side], distance)
              return edge === null ? [] : [edge + positions[i]!]
            })
          const [firsts, lasts] = [reach('first'), reach('last')]
          const first = edgeAt(row.first, distance)
          const last = edgeAt(row.last, distance)
          if (firsts.length === 0) expect([first, last]).toEqual([null, null])
          else {
            expect(first).toBeCloseTo(Math.min(...firsts), 6)
            expect(last! + lastShift).toBeCloseTo(Math.max(...lasts), 6)
          }
        }
      }),
      { numRuns: 150 },
    )
  })

  test('sets plain boxes as it sets their contours', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(box, fc.array(box, { maxLength: 3 })), { minLength: 1, maxLength: 8 }),
        (branches) => {
          const [plain, besideContours] = [new Row(lengths, 4), new Row(lengths, 4)]
          for (const [head, leaves] of branches) {
            const contour = withRow(head, leaves.map(contourFrom))
            const position =
              leaves.length > 0 ? plain.add(contour) : plain.addBox(head.length, head.before, head.before)
            expect(position).toBe(besideContours.add(contour))
          }
          for (let distance = 0; distance < 200; distance += 3)
            for (const side of ['first', 'last'] as const)
              expect(edgeAt(plain[side], distance)).toEqual(edgeAt(besideContours[side], distance))
        },
      ),
    )
  })

  test('of nothing is a mistake of the caller', () => {
    expect(() => setRow([], 4).row.first).toThrow('A row needs at least one branch.')
  })
})
