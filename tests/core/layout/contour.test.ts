import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { boxContour, type Cell, type Contour, contourAbove, Row } from '../../../src/core/layout/contour'

/** How far an contour reaches at a distance along the growth; null beyond its end. */
function edgeAt(first: Cell, distance: number): number | null {
  let along = 0
  let across = 0
  for (let cell: Cell | null = first; cell; cell = cell.next) {
    if (distance < cell.far + along) return cell.edge + across
    along += cell.along
    across += cell.across
  }
  return null
}

function setRow(branches: readonly Contour[], gap: number): Row {
  const row = new Row(gap)
  for (const branch of branches) row.add(branch)
  return row
}

const copyOf = ({ first, last }: Contour): Contour => ({
  first: structuredClone(first),
  last: structuredClone(last),
})

const box = fc.record({
  length: fc.integer({ min: 1, max: 60 }),
  before: fc.integer({ min: 1, max: 40 }),
  after: fc.integer({ min: 1, max: 40 }),
})
const contourFrom = ({ length, before, after }: { length: number; before: number; after: number }) =>
  boxContour(length, before, after)

/** Outlines of one to three levels. */
const contours: fc.Arbitrary<Contour> = fc
  .tuple(box, fc.array(fc.tuple(box, fc.array(box, { maxLength: 3 })), { maxLength: 4 }))
  .map(([head, below]) => {
    const children = below.map(([child, leaves]) => withRow(child, leaves.map(contourFrom)))
    return withRow(head, children)
  })

function withRow(head: { length: number; before: number }, children: Contour[]): Contour {
  if (children.length === 0) return boxContour(head.length, head.before, head.before)
  const row = setRow(children, 3)
  return contourAbove(head.length, head.before, 5, row, row.positions.at(-1)! / 2)
}

describe('a row of branches', () => {
  test('keeps the gap between all of them at every distance, and no more than it must', () => {
    fc.assert(
      fc.property(
        fc.array(contours, { minLength: 2, maxLength: 7 }),
        fc.integer({ min: 0, max: 12 }),
        (branches, gap) => {
          const copies = branches.map(copyOf)
          const { positions } = setRow(branches, gap)
          for (let i = 1; i < branches.length; i++) {
            let tightest = Number.POSITIVE_INFINITY
            for (let j = 0; j < i; j++)
              for (let distance = 0; distance < 200; distance++) {
                const above = edgeAt(copies[j]!.last, distance)
                const below = edgeAt(copies[i]!.first, distance)
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
        const copies = branches.map(copyOf)
        const row = setRow(branches, 4)
        const { positions, lastShift } = row
        expect(branches.map(copyOf)).toEqual(copies)
        for (let distance = 0; distance < 200; distance += 3) {
          const reach = (side: 'first' | 'last') =>
            copies.flatMap((branch, i) => {
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
          const [plain, besideContours] = [new Row(4), new Row(4)]
          for (const [head, leaves] of branches) {
            const contour = withRow(head, leaves.map(contourFrom))
            besideContours.add(contour)
            if (leaves.length > 0) plain.add(contour)
            else plain.addBox(head.length, head.before, head.before)
          }
          expect(plain.positions).toEqual(besideContours.positions)
          for (let distance = 0; distance < 200; distance += 3)
            for (const side of ['first', 'last'] as const)
              expect(edgeAt(plain[side], distance)).toEqual(edgeAt(besideContours[side], distance))
        },
      ),
    )
  })

  test('of nothing is a mistake of the caller', () => {
    expect(() => setRow([], 4).first).toThrow('A row needs at least one branch.')
  })
})
