import fc from 'fast-check'
import { expect, test } from 'vitest'
import { atlasByCloseness, atlasOf, TITLE_HEIGHT } from '../../../src/core/network/atlas'
import { MapId } from '../../../src/core/records/ids'
import type { MapDigest } from '../../../src/core/records/snapshot'

const idOf = (number: number) => MapId.parse(`00000000-0000-7000-8000-${String(number).padStart(12, '0')}`)

/** Maps by the number of the map on which their home doorway stands; -1 for none. */
function collection(parents: readonly number[], topics: readonly number[] = []): MapDigest[] {
  return parents.map((parent, i) => ({
    id: idOf(i),
    title: `Map ${i}`,
    trashed: false,
    homeDoorway: null,
    folder: null,
    parentMap: parent < 0 ? null : idOf(parent),
    topics: topics[i] ?? 10,
    opens: parents.flatMap((other, child) => (other === i ? [idOf(child)] : [])),
    linked: [],
  }))
}

test('the home map stands at the upper left, what it opens to its right, what is reached from nowhere at the foot', () => {
  const { plates, shelf } = atlasOf(collection([-1, 0, 0, 1, -1]), idOf(0))
  const at = (number: number) => plates.find(({ map }) => map.id === idOf(number))!
  expect([at(0).x, at(0).y]).toEqual([0, 0])
  expect(at(1).x).toBeGreaterThan(at(0).x + at(0).side)
  expect(at(1).y).toBe(0)
  expect([at(2).x === at(1).x, at(2).y > at(1).y]).toEqual([true, true])
  expect(at(3).x).toBeGreaterThan(at(1).x + at(1).side)
  expect(at(4).y).toBeGreaterThanOrEqual(shelf!)
  expect(Math.max(at(0).y, at(1).y, at(2).y, at(3).y)).toBeLessThan(shelf!)
})

test('maps with more topics are larger, and trashed ones are not there', () => {
  const maps = collection([-1, 0, 0], [16, 100, 400])
  const { plates } = atlasOf([maps[0]!, maps[1]!, { ...maps[2]!, trashed: true }], idOf(0))
  expect(plates.map(({ map }) => map.title)).toEqual(['Map 0', 'Map 1'])
  expect(plates[1]!.side / plates[0]!.side).toBeCloseTo(Math.sqrt(100 / 16), 0)
})

test('every map has one place and none lies over another, whatever hangs where, in circles too', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: -1, max: 29 }), fc.integer({ min: 1, max: 900 })), {
        minLength: 1,
        maxLength: 30,
      }),
      fc.boolean(),
      fc.boolean(),
      (rows, hasHome, isByCloseness) => {
        const maps = collection(
          rows.map(([parent], i) => (parent === i || parent >= rows.length ? -1 : parent)),
          rows.map(([, topics]) => topics),
        )
        const { plates, width, height } = isByCloseness
          ? atlasByCloseness(maps)
          : atlasOf(maps, hasHome ? idOf(0) : null)
        expect(plates.map(({ map }) => map.id).sort()).toEqual(maps.map(({ id }) => id).sort())
        for (const [i, a] of plates.entries()) {
          expect(a.x + a.side <= width && a.y + a.side + TITLE_HEIGHT <= height).toBe(true)
          for (const b of plates.slice(i + 1))
            expect(
              a.x + a.side <= b.x ||
                b.x + b.side <= a.x ||
                a.y + a.side + TITLE_HEIGHT <= b.y ||
                b.y + b.side + TITLE_HEIGHT <= a.y,
            ).toBe(true)
        }
      },
    ),
  )
})

test('a thousand maps behind one take room in both directions', () => {
  const { width, height } = atlasOf(collection([-1, ...Array.from({ length: 999 }, () => 0)]), idOf(0))
  expect(width / height).toBeGreaterThan(0.5)
  expect(width / height).toBeLessThan(3)
})

test('by closeness, maps that are linked most stand side by side, and those linked with nothing on a shelf', () => {
  const maps = collection([-1, -1, -1, -1, -1])
  const link = (a: number, b: number, links: number) => {
    maps[a]!.linked.push({ map: idOf(b), links })
    maps[b]!.linked.push({ map: idOf(a), links })
  }
  link(0, 3, 9)
  link(1, 2, 7)
  link(0, 1, 1)
  const { plates, shelf } = atlasByCloseness(maps)
  const at = (number: number) => plates.find(({ map }) => map.id === idOf(number))!
  const areBeside = (a: number, b: number) => at(a).y === at(b).y && Math.abs(at(a).x - at(b).x) < 250
  expect([areBeside(0, 3), areBeside(1, 2), areBeside(0, 1)]).toEqual([true, true, false])
  expect([at(0).y < shelf!, at(4).y >= shelf!]).toEqual([true, true])
})
