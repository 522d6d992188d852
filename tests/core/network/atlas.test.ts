import fc from 'fast-check'
import { expect, test } from 'vitest'
import { atlasByCloseness, atlasOf, TITLE_HEIGHT } from '../../../src/core/network/atlas'
import { atlasByHand, folderFrames } from '../../../src/core/network/atlas-by-hand'
import { bundledWay } from '../../../src/core/network/bundled-way'
import { FolderId, MapId } from '../../../src/core/records/ids'
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
    inAtlas: null,
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
      fc.constantFrom('doorways', 'closeness', 'hand'),
      fc.array(fc.record({ x: fc.integer({ min: -300, max: 300 }), y: fc.integer({ min: -300, max: 300 }) })),
      (rows, hasHome, by, places) => {
        const maps = collection(
          rows.map(([parent], i) => (parent === i || parent >= rows.length ? -1 : parent)),
          rows.map(([, topics]) => topics),
        )
        const home = hasHome ? idOf(0) : null
        for (const [i, map] of maps.entries()) map.inAtlas = places[i] ?? null
        const { plates, width, height } =
          by === 'closeness' ? atlasByCloseness(maps) : (by === 'hand' ? atlasByHand : atlasOf)(maps, home)
        expect(Math.min(...plates.flatMap(({ x, y }) => [x, y]))).toBeGreaterThanOrEqual(0)
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

test('by hand, maps stand where they were put, and the others make way for them', () => {
  const maps = collection([-1, 0, 0])
  const before = atlasOf(maps, idOf(0)).plates
  maps[2]!.inAtlas = { x: before[1]!.x - 10, y: -40 }
  const { plates, origin } = atlasByHand(maps, idOf(0))
  const at = (number: number) => plates.find(({ map }) => map.id === idOf(number))!
  expect(origin).toEqual({ x: 0, y: 40 })
  expect([at(2).x, at(2).y]).toEqual([before[1]!.x - 10, 0])
  expect([at(0).x, at(0).y]).toEqual([0, 40])
  expect(at(1).y).toBeGreaterThan(at(2).y + at(2).side + TITLE_HEIGHT)
  const untouched = collection([-1, 0, 0])
  expect(atlasByHand(untouched, idOf(0)).plates).toEqual(atlasOf(untouched, idOf(0)).plates)
})

test('a frame goes around the maps of a folder, and around the frames of the folders in it', () => {
  const maps = collection([-1, 0, 0, 0])
  const [outer, inner] = [idOf(100), idOf(101)].map((id) => FolderId.parse(id))
  maps[1]!.folder = outer!
  maps[2]!.folder = inner!
  const frames = folderFrames(atlasByHand(maps, idOf(0)), (folder) => (folder === inner ? outer! : null))
  expect(frames.map(({ folder }) => folder)).toEqual([outer, inner])
  const [around, within] = frames as [(typeof frames)[0], (typeof frames)[0]]
  expect(within.x).toBeGreaterThan(around.x)
  expect(within.y).toBeGreaterThan(around.y)
  expect(within.x + within.width).toBeLessThan(around.x + around.width)
  expect(within.y + within.height).toBeLessThan(around.y + around.height)
  // Folders in a circle, which two people can make of them at once, hang nobody up.
  const circle = folderFrames(atlasByHand(maps, idOf(0)), (folder) => (folder === inner ? outer! : inner!))
  expect(circle.map(({ folder }) => folder).sort()).toEqual([outer, inner])
  // The third stands below the second: put between the first and the second, it is in the way of the frame around both.
  maps[3]!.inAtlas = { x: 196, y: 170 }
  expect(folderFrames(atlasByHand(maps, idOf(0)), (folder) => (folder === inner ? outer! : null))).toHaveLength(1)
})

test('links run together along the home doorways, and directly where no way joins their maps', () => {
  const { plates } = atlasOf(collection([-1, 0, 0, 1, 2, -1]), idOf(0))
  const plateOf = (map: string) => plates.find((plate) => plate.map.id === map)
  const way = (from: number, to: number) =>
    bundledWay(plateOf(idOf(from))!, plateOf(idOf(to))!, plateOf).map(({ map }) => map.title)
  expect(way(3, 4)).toEqual(['Map 3', 'Map 1', 'Map 0', 'Map 2', 'Map 4'])
  expect(way(3, 1)).toEqual(['Map 3', 'Map 1'])
  expect(way(0, 4)).toEqual(['Map 0', 'Map 2', 'Map 4'])
  expect(way(3, 5)).toEqual(['Map 3', 'Map 5'])
})
