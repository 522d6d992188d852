import type { Point } from '../records/place'
import type { MapDigest } from '../records/snapshot'

/** A map in the atlas: a square plate with room for its title beneath. In px. */
export interface Plate {
  map: MapDigest
  x: number
  y: number
  /** Of the square. */
  side: number
}

export interface Atlas {
  plates: Plate[]
  width: number
  height: number
  /** Where the shelf of maps begins to which no way leads; null where there are none. */
  shelf: number | null
  /** How far all of it was moved, so that nothing is left of or above 0. */
  origin: Point
}

/** A plate is so large for each root of its number of topics, at least and at most. */
const [A_ROOT, LEAST_SIDE, MOST_SIDE] = [15, 64, 360]
/** Room for a title, and between plates. */
export const TITLE_HEIGHT = 64
export const LEAST_WIDTH = 132
const GAP = { across: 64, down: 28 }
/** Maps behind which there is nothing stand in rows where there are more of them side by side than this. */
const FEW = 4
/** How wide the shelf is at least. */
const SHELF_WIDTH = 1_400
const SHELF_GAP = 96

/** The room of a plate with its title. */
export const widthOf = ({ side }: Pick<Plate, 'side'>): number => Math.max(side, LEAST_WIDTH)
export const heightOf = ({ side }: Pick<Plate, 'side'>): number => side + TITLE_HEIGHT

/** Plates that were placed from 0, 0, and the room that they take. */
interface Block {
  plates: Plate[]
  width: number
  height: number
}

/**
 * All maps of a collection as plates without overlaps: the home map at the upper left, what doorways open to the right of and
 * below the map on which they stand; at the foot what is reached from nowhere. Linear in maps, but for moving blocks.
 */
export function atlasOf(maps: readonly MapDigest[], home: string | null): Atlas {
  const kept = maps.filter(({ trashed }) => !trashed)
  const byId = new Map<string, MapDigest>(kept.map((map) => [map.id, map]))
  const below = childMaps(kept, byId)
  const placed = new Set<string>()
  const start = home === null ? undefined : byId.get(home)
  const main = start ? blockOf(start, below, placed) : { plates: [], width: 0, height: 0 }
  const rest: Block[] = []
  const isHead = ({ parentMap }: MapDigest) => parentMap === null || !byId.has(parentMap)
  // Those that open one another in a circle have no head: any of them will do.
  for (const head of [...kept.filter(isHead), ...kept])
    if (!placed.has(head.id)) rest.push(blockOf(head, below, placed))
  return withShelf(main, rest)
}

/** What hangs together, and below it, on a shelf, the rest. */
function withShelf(main: Block, rest: readonly Block[]): Atlas {
  const shelf = rest.length > 0 ? (main.height > 0 ? main.height + SHELF_GAP : 0) : null
  const onShelf = inRows(rest, Math.max(SHELF_WIDTH, main.width))
  return {
    plates: [...main.plates, ...moved(onShelf.plates, 0, shelf ?? 0)],
    width: Math.max(main.width, onShelf.width),
    height: (shelf ?? main.height) + onShelf.height,
    shelf,
    origin: { x: 0, y: 0 },
  }
}

/**
 * All maps of a collection as plates without overlaps, by what leads from one to another: the more cross-links and doorways
 * there are between maps, the sooner their rows are joined, with these two as near to one another as can be (single
 * linkage: Sibson 1973, SLINK); at the foot what nothing leads to or from. O(maps² + links · log links).
 */
export function atlasByCloseness(maps: readonly MapDigest[]): Atlas {
  const kept = maps.filter(({ trashed }) => !trashed)
  const rowOf = new Map<string, MapDigest[]>(kept.map((map) => [map.id, [map]]))
  for (const { one, other } of tiesBetween(kept)) {
    const [a, b] = [rowOf.get(one)!, rowOf.get(other)!]
    if (a === b) continue
    // The two meet where the rows do, as far as each stands nearer to one end of its own.
    if (isInFirstHalf(a, one)) a.reverse()
    if (!isInFirstHalf(b, other)) b.reverse()
    a.push(...b)
    for (const { id } of b) rowOf.set(id, a)
  }
  const rows = [...new Set(rowOf.values())].sort((a, b) => b.length - a.length)
  const tied = rows.filter(({ length }) => length > 1).map(wrapped)
  const main = inRows(tied, Math.max(SHELF_WIDTH, ...tied.map(({ width }) => width)))
  return withShelf(
    main,
    rows.filter(({ length }) => length === 1).map(([map]) => alone(map!)),
  )
}

const isInFirstHalf = (row: readonly MapDigest[], map: string): boolean =>
  row.findIndex(({ id }) => id === map) < row.length / 2

/** How much wider than high the whole is to become: as a screen is. */
const ASPECT = 1.6

/** Maps in the order of a row, wrapped so that they take the form of a screen. */
function wrapped(row: readonly MapDigest[]): Block {
  const blocks = row.map(alone)
  const area = blocks.reduce((sum, { width, height }) => sum + (width + GAP.across) * (height + GAP.down), 0)
  return inRows(blocks, Math.sqrt(area * ASPECT))
}

/** Pairs of maps between which something leads, those with most of it first. */
function tiesBetween(maps: readonly MapDigest[]): { one: string; other: string; count: number }[] {
  const known = new Set<string>(maps.map(({ id }) => id))
  const ties = new Map<string, { one: string; other: string; count: number }>()
  const tie = (one: string, other: string, count: number) => {
    if (one === other || !known.has(other)) return
    const key = one < other ? `${one} ${other}` : `${other} ${one}`
    const before = ties.get(key)
    if (before) before.count = Math.max(before.count, count)
    else ties.set(key, { one, other, count })
  }
  for (const { id, linked, opens } of maps) {
    for (const { map, links } of linked) tie(id, map, links + (opens.includes(map) ? 1 : 0))
    for (const map of opens) tie(id, map, 1)
  }
  return [...ties.values()].sort((a, b) => b.count - a.count || (a.one + a.other < b.one + b.other ? -1 : 1))
}

function alone(map: MapDigest): Block {
  const side = sideOf(map)
  return { plates: [{ map, x: 0, y: 0, side }], width: widthOf({ side }), height: heightOf({ side }) }
}

/** The maps whose home doorway stands on a map, in the order in which this map opens them. */
function childMaps(maps: readonly MapDigest[], byId: ReadonlyMap<string, MapDigest>): Map<string, MapDigest[]> {
  const below = new Map<string, MapDigest[]>()
  for (const { id, opens } of maps)
    below.set(
      id,
      opens.flatMap((opened) => {
        const map = byId.get(opened)
        return map?.parentMap === id ? [map] : []
      }),
    )
  return below
}

const sideOf = ({ topics }: MapDigest): number =>
  Math.round(Math.min(MOST_SIDE, Math.max(LEAST_SIDE, A_ROOT * Math.sqrt(topics))))

/** A map with all that hangs behind it. Each map is placed once. */
function blockOf(map: MapDigest, below: ReadonlyMap<string, MapDigest[]>, placed: Set<string>): Block {
  placed.add(map.id)
  const own = alone(map)
  const { width } = own
  const children = below.get(map.id)!.filter(({ id }) => !placed.has(id))
  if (children.length === 0) return own
  for (const { id } of children) placed.add(id)
  const stacked: Block[] = []
  let row: Block[] = []
  const endRow = () => {
    if (row.length > FEW) stacked.push(inRows(row, Math.sqrt(row.length) * 1.2 * (LEAST_WIDTH + GAP.down)))
    else stacked.push(...row)
    row = []
  }
  for (const child of children) {
    const block = blockOf(child, below, placed)
    if (block.plates.length === 1) row.push(block)
    else {
      endRow()
      stacked.push(block)
    }
  }
  endRow()
  let y = 0
  let right = 0
  const plates = [...own.plates]
  for (const block of stacked) {
    plates.push(...moved(block.plates, width + GAP.across, y))
    y += block.height + GAP.down
    right = Math.max(right, block.width)
  }
  return { plates, width: width + GAP.across + right, height: Math.max(own.height, y - GAP.down) }
}

/** Blocks beside one another, in as many rows as it takes. */
function inRows(blocks: readonly Block[], most: number): Block {
  const plates: Plate[] = []
  let [x, y, height, width] = [0, 0, 0, 0]
  for (const block of blocks) {
    if (x > 0 && x + block.width > most) {
      y += height + GAP.down
      ;[x, height] = [0, 0]
    }
    plates.push(...moved(block.plates, x, y))
    x += block.width + GAP.down
    height = Math.max(height, block.height)
    width = Math.max(width, x - GAP.down)
  }
  return { plates, width, height: y + height }
}

export const moved = (plates: readonly Plate[], x: number, y: number): Plate[] =>
  plates.map((plate) => ({ ...plate, x: plate.x + x, y: plate.y + y }))
