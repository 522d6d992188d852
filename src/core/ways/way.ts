import FlatQueue from 'flatqueue'
import type { FreeSpace, Tile } from './free-space'

export interface Point {
  x: number
  y: number
}

/** A point at which a way can begin or end, and what it costs to do so there, in px. */
export interface Port extends Point {
  cost: number
}

/** Tiles lower than this, in px, are passed where there is little else: a line between two rows reads as if it underlined one. */
const NARROW = 16
/** What each px along them costs besides. */
const NARROW_COSTS = 2

const distance = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y)
const pointOf = ({ x, y }: Point): Point => ({ x, y })
const clamp = (value: number, low: number, high: number) => Math.min(Math.max(value, low), high)

/** How many tiles may still be looked at. */
export interface Patience {
  tiles: number
}

/**
 * A short way through free space from one of some points to one of others: its corners with both ends; null where there
 * is none, or where patience ends. Of the tiles that it leads through it is the shortest way.
 *
 * Method: A* (Hart, Nilsson and Raphael 1968) over the tiles, where each is entered at the point nearest to the straight
 * line onward; then the line is pulled taut through their common edges (the funnel of Lee and Preparata, "Euclidean
 * Shortest Paths in the Presence of Rectilinear Barriers", 1984). O(t log t) with t tiles looked at.
 */
export function shortWay(
  space: FreeSpace,
  starts: readonly Port[],
  ends: readonly Port[],
  patience: Patience,
): Point[] | null {
  const { tiles } = space
  const goals = new Map<number, number[]>()
  ends.forEach(({ x, y }, i) => {
    const tile = space.at(x, y)
    if (tile) goals.set(tile.index, [...(goals.get(tile.index) ?? []), tiles.length + i])
  })
  const search = new Search(tiles.length + ends.length, ends)
  starts.forEach(({ x, y, cost }, i) => {
    const tile = space.at(x, y)
    if (tile) search.enter(tile.index, x, y, cost, -1 - i)
  })
  for (let here = search.next(); here !== undefined && patience.tiles-- > 0; here = search.next()) {
    if (here >= tiles.length) {
      const { start, through } = search.wayTo(here)
      const doors = through.slice(1).map((tile, i) => doorBetween(tiles[through[i]!]!, tiles[tile]!))
      return pulledThrough(pointOf(starts[start]!), pointOf(ends[here - tiles.length]!), doors)
    }
    const tile = tiles[here]!
    for (const goal of goals.get(here) ?? []) {
      const end = ends[goal - tiles.length]!
      search.goOn(here, goal, end.x, end.y, detourAlong(tile), end.cost)
    }
    for (const next of tile.beside) {
      const isDown = next.top === tile.bottom
      const y = isDown ? next.top : tile.top
      const x = search.onwardX(here, y)
      const entry = clamp(x, Math.max(tile.left, next.left), Math.min(tile.right, next.right))
      search.goOn(here, next.index, entry, y, detourAlong(tile), 0)
    }
  }
  return null
}

/** What is known of each tile, and of each end, while ways are sought: in arrays, because there are thousands for each way. */
class Search {
  private readonly queue = new FlatQueue()
  private readonly cost: Float64Array
  private readonly x: Float64Array
  private readonly y: Float64Array
  /** The tile before; -1 and less: the number of the start. */
  private readonly from: Int32Array
  private readonly done: Uint8Array
  private readonly middle: Point
  private readonly reach: number

  constructor(size: number, ends: readonly Port[]) {
    this.cost = new Float64Array(size).fill(Number.POSITIVE_INFINITY)
    this.x = new Float64Array(size)
    this.y = new Float64Array(size)
    this.from = new Int32Array(size)
    this.done = new Uint8Array(size)
    this.middle = middleOf(ends)
    this.reach = Math.max(...ends.map((end) => distance(end, this.middle)))
  }

  /** The next tile, or end, to be looked at. */
  next(): number | undefined {
    let at = this.queue.pop()
    while (at !== undefined && this.done[at] === 1) at = this.queue.pop()
    if (at !== undefined) this.done[at] = 1
    return at
  }

  /** Goes on from a tile to another, or to an end, which is entered at x, y. */
  goOn(from: number, to: number, x: number, y: number, detour: number, more: number): void {
    const across = x - this.x[from]!
    const length = Math.hypot(across, y - this.y[from]!) + Math.abs(across) * detour
    this.enter(to, x, y, this.cost[from]! + length + more, from)
  }

  enter(at: number, x: number, y: number, cost: number, from: number): void {
    if (cost >= this.cost[at]!) return
    this.cost[at] = cost
    this.x[at] = x
    this.y[at] = y
    this.from[at] = from
    this.done[at] = 0
    const left = Math.hypot(x - this.middle.x, y - this.middle.y) - this.reach
    this.queue.push(at, cost + Math.max(0, left))
  }

  /** Where the straight line from the entry of a tile to the ends crosses a height; right across where it does not. */
  onwardX(from: number, y: number): number {
    const [fromX, fromY] = [this.x[from]!, this.y[from]!]
    const part = (y - fromY) / (this.middle.y - fromY)
    return part > 0 && part <= 1 ? fromX + (this.middle.x - fromX) * part : fromX
  }

  /** The tiles that lead to an end, from the first, and the number of the start. */
  wayTo(end: number): { start: number; through: number[] } {
    const through: number[] = []
    let at = this.from[end]!
    for (; at >= 0; at = this.from[at]!) through.push(at)
    return { start: -1 - at, through: through.reverse() }
  }
}

function middleOf(points: readonly Point[]): Point {
  const sum = points.reduce((sum, { x, y }) => ({ x: sum.x + x, y: sum.y + y }), { x: 0, y: 0 })
  return { x: sum.x / points.length, y: sum.y / points.length }
}

/** What each px along a tile costs besides. */
const detourAlong = ({ top, bottom }: Tile) => (bottom - top < NARROW ? NARROW_COSTS : 0)

/** The common edge of two tiles. Going down, its right end is at the left hand. */
function doorBetween(from: Tile, to: Tile): Door {
  const isDown = to.top === from.bottom
  const y = isDown ? to.top : from.top
  const left = { x: Math.max(from.left, to.left), y }
  const right = { x: Math.min(from.right, to.right), y }
  return isDown ? { a: right, b: left } : { a: left, b: right }
}

/** Twice the area of a triangle: above 0 where c lies clockwise of b, seen from a, with y downward. */
const turn = (a: Point, b: Point, c: Point) => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)
const isSame = (a: Point, b: Point) => Math.abs(a.x - b.x) < 1e-9 && Math.abs(a.y - b.y) < 1e-9

interface Door {
  /** Its ends at the left and the right hand of who passes. */
  a: Point
  b: Point
}

/** The shortest line from start to end through doors in order. */
function pulledThrough(start: Point, end: Point, doors: readonly Door[]): Point[] {
  const all = [...doors, { a: end, b: end }]
  const corners: Point[] = [start]
  let apex: Point = start
  let [left, right]: [Point, Point] = [start, start]
  let [leftAt, rightAt] = [-1, -1]
  for (let i = 0; i < all.length; i++) {
    const { a, b } = all[i]!
    if (turn(apex, right, b) <= 0) {
      if (isSame(apex, right) || turn(apex, left, b) > 0) {
        right = b
        rightAt = i
      } else {
        corners.push(left)
        apex = left
        i = rightAt = leftAt
        right = apex
        continue
      }
    }
    if (turn(apex, left, a) >= 0) {
      if (isSame(apex, left) || turn(apex, right, a) < 0) {
        left = a
        leftAt = i
      } else {
        corners.push(right)
        apex = right
        i = leftAt = rightAt
        left = apex
      }
    }
  }
  corners.push(end)
  return corners.filter((corner, i) => i === 0 || !isSame(corner, corners[i - 1]!))
}
