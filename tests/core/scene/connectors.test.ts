import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { Bounds } from '../../../src/core/layout/boxes'
import { layoutMap } from '../../../src/core/layout/map-layout'
import { LayoutKind } from '../../../src/core/records/layout'
import { ConnectorForm, PLAIN_MAP_LOOK } from '../../../src/core/records/look'
import { drawConnectors } from '../../../src/core/scene/connectors'
import { CONTEXT } from '../gardens'
import { MAP, plain, recordsOf, sapling } from '../layout/forests'

/** The points at which a path of absolute M, L, H, V and C begins and ends. */
function endsOf(path: string): { first: [number, number]; last: [number, number] } {
  let [x, y] = [0, 0]
  let first: [number, number] | null = null
  for (const [, letter, rest = ''] of path.matchAll(/([MLHVC])([^MLHVC]*)/g)) {
    const numbers = rest
      .trim()
      .split(/[\s,]+/)
      .map(Number)
    if (letter === 'H') x = numbers.at(-1)!
    else if (letter === 'V') y = numbers.at(-1)!
    else [x, y] = [numbers.at(-2)!, numbers.at(-1)!]
    first ??= [x, y]
  }
  return { first: first ?? [x, y], last: [x, y] }
}

/** How far a point is from the edge of a box, whether inside or outside. */
function fromEdge([x, y]: [number, number], box: Bounds): number {
  const [dx, dy] = [Math.max(box.x - x, x - box.x - box.width), Math.max(box.y - y, y - box.y - box.height)]
  return dx > 0 || dy > 0 ? Math.hypot(Math.max(dx, 0), Math.max(dy, 0)) : -Math.max(dx, dy)
}

describe('connectors', () => {
  test.each(ConnectorForm.options)(
    'in the form %s begin at the edge of their topic and end at that of each child, in every layout',
    (connector) => {
      fc.assert(
        fc.property(
          fc.constantFrom(...LayoutKind.options),
          fc.array(sapling, { minLength: 2, maxLength: 40 }),
          (layout, saplings) => {
            const records = recordsOf({ layout, spacing: 1, numbering: null }, saplings)
            const look = { ...PLAIN_MAP_LOOK, every: { connector } }
            records.put('map', { ...records.need('map', MAP), look })
            const placed = layoutMap(records, MAP, CONTEXT)
            const joined = new Set<string>()
            for (const one of drawConnectors(placed))
              for (const child of one.hanging) {
                joined.add(child.topic.id)
                const { first, last } = endsOf(one.lineTo(child))
                expect([child.topic.id, fromEdge(first, one.parent) < 0.05]).toEqual([child.topic.id, true])
                expect([child.topic.id, fromEdge(last, child) < 0.05]).toEqual([child.topic.id, true])
              }
            // Every topic that hangs on another one that is shown is joined to it, once.
            expect(joined).toEqual(new Set(placed.boxes.filter(({ parent }) => parent).map(({ topic }) => topic.id)))
          },
        ),
        { numRuns: 60 },
      )
    },
  )

  test('of siblings on one side hang on one spine, at the same distance from each', () => {
    const row = Array.from({ length: 6 }, () => ({ ...plain, words: 2 }))
    const records = recordsOf({ layout: 'right', spacing: 1, numbering: null }, [plain, ...row])
    const [connector, ...others] = drawConnectors(layoutMap(records, MAP, CONTEXT))
    expect(others).toEqual([])
    const starts = connector!.hanging.map((child) => {
      const [, x] = /M([\d.-]+) [\d.-]+H[\d.-]+$/.exec(connector!.lineTo(child)) ?? []
      return child.x - Number(x)
    })
    expect(new Set(starts).size).toBe(1)
  })
})
