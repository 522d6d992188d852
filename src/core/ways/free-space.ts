import type Flatbush from 'flatbush'
import type { Bounds } from '../layout/boxes'
import { indexOf } from './rectangles'

/** A rectangle in which nothing stands; its left and right ends are boxes, or nothing at all. */
export interface Tile {
  /** Its number among all tiles. */
  readonly index: number
  readonly left: number
  readonly right: number
  readonly top: number
  bottom: number
  /** Tiles that touch its upper or lower edge. */
  readonly beside: Tile[]
}

type Stretch = Pick<Tile, 'left' | 'right'>

const FAR = 1e7

/**
 * The space between boxes as rectangles, each as wide as it can be, with what touches what: at most three for each box that
 * lies on no other.
 *
 * Method: a sweep down over the upper and lower edges with the free stretches of the line in order (the horizontal
 * decomposition of de Berg et al., "Computational Geometry", ch. 6, for boxes). O(n × (log n + boxes abreast)) with n boxes.
 */
export class FreeSpace {
  readonly tiles: Tile[] = []
  private known: Flatbush | null = null
  /** The free stretches of the sweep line, from left to right. */
  private readonly open: Tile[] = []
  /** The boxes on the sweep line. */
  private readonly standing = new Set<Bounds>()

  constructor(boxes: readonly Bounds[]) {
    const edges = boxes.flatMap((box) => [
      { y: box.y, opens: true, box },
      { y: box.y + box.height, opens: false, box },
    ])
    // What ends at a height makes room for what begins there.
    edges.sort((a, b) => a.y - b.y || Number(a.opens) - Number(b.opens) || a.box.x - b.box.x)
    this.begin(0, { left: -FAR, right: FAR }, -FAR, [])
    for (const { y, opens, box } of edges) {
      if (opens) this.standing.add(box)
      else this.standing.delete(box)
      this.cutAgain(y, box.x, box.x + box.width)
    }
    for (const tile of this.open) tile.bottom = FAR
  }

  /** The tile in which a point lies; null inside a box. */
  at(x: number, y: number): Tile | null {
    this.known ??= indexOf(this.tiles.map(({ left, top, right, bottom }) => [left, top, right, bottom]))
    const [found] = this.known.search(x, y, x, y)
    return found === undefined ? null : this.tiles[found]!
  }

  /** Which free stretch is the first that ends at or after x. */
  private stretchFrom(x: number): number {
    let [low, high] = [0, this.open.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (this.open[middle]!.right < x) low = middle + 1
      else high = middle
    }
    return low
  }

  /** Cuts the line again where a box has begun or ended, as far as the free stretches reach that touch it. */
  private cutAgain(y: number, from: number, to: number): void {
    const first = this.stretchFrom(from)
    let end = first
    while (end < this.open.length && this.open[end]!.left <= to) end++
    const old = this.open.splice(first, end - first)
    for (const tile of old) tile.bottom = y
    const left = Math.min(from, old[0]?.left ?? from)
    const right = Math.max(to, old.at(-1)?.right ?? to)
    this.freeBetween(left, right).forEach((stretch, i) => {
      const same = old.find((tile) => tile.left === stretch.left && tile.right === stretch.right)
      if (same) this.open.splice(first + i, 0, same)
      else this.begin(first + i, stretch, y, old)
    })
  }

  private freeBetween(left: number, right: number): Stretch[] {
    const inside = [...this.standing].filter(({ x, width }) => x < right && x + width > left).sort((a, b) => a.x - b.x)
    const free: Stretch[] = []
    let at = left
    for (const { x, width } of inside) {
      if (x > at) free.push({ left: at, right: x })
      at = Math.max(at, x + width)
    }
    if (at < right) free.push({ left: at, right })
    return free
  }

  private begin(index: number, { left, right }: Stretch, top: number, above: readonly Tile[]): void {
    const touching = above.filter((other) => other.left < right && other.right > left)
    const tile: Tile = { index: this.tiles.length, left, right, top, bottom: top, beside: [...touching] }
    for (const other of touching) other.beside.push(tile)
    this.open.splice(index, 0, tile)
    this.tiles.push(tile)
  }
}
