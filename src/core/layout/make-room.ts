import type { Bounds } from './boxes'
import type { Setting } from './kinds/set-children'
import { Cells, type Solid, type Standable } from './solid'

/** Space that is kept between boxes which were not set together, in px. */
export const CLEARANCE = 16

/** What rounding may cost: boxes that were just moved apart are not found too near again. */
const SLACK = 1e-6
const NEAR = CLEARANCE - SLACK

const isNear = (a: Bounds, b: Bounds, near: number): boolean =>
  a.x < b.x + b.width + near && b.x < a.x + a.width + near && a.y < b.y + b.height + near && b.y < a.y + a.height + near

interface Hit {
  own: Bounds
  other: Bounds
}

/** Comparisons of boxes after which branches are no longer moved by as little as it takes: a fifth of a second. */
const MOST_COMPARED = 200_000

/**
 * Branches that stand, and that others keep clear of. However many somebody piles up at one point, the work is bounded:
 * what comes after so many comparisons moves beyond all that stands.
 */
export class Standing {
  private readonly cells = new Cells<Standable>()
  private readonly reach = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  private compared = 0

  constructor(solids: readonly Standable[]) {
    for (const solid of solids) this.add(solid)
  }

  /**
   * Moves a branch until it touches nothing that stands, in that direction in which it stays nearest to its place; from then on it
   * stands too. With `stays` it moves only where it would lie over another, and may stand close to it.
   */
  settle(solid: Standable, stays = false): void {
    const { x, y } = solid
    let nearest = { x, y, way: Number.POSITIVE_INFINITY }
    for (const direction of DIRECTIONS) {
      Object.assign(solid, { x, y })
      this.pushClear(solid, direction, stays)
      const way = Math.abs(solid.x - x) + Math.abs(solid.y - y)
      if (way < nearest.way) nearest = { x: solid.x, y: solid.y, way }
      if (way === 0) break
    }
    Object.assign(solid, { x: nearest.x, y: nearest.y })
    this.add(solid)
  }

  add(solid: Standable): void {
    const { x, y, width, height } = solid.reach
    const { reach } = this
    reach.left = Math.min(reach.left, x)
    reach.top = Math.min(reach.top, y)
    reach.right = Math.max(reach.right, x + width)
    reach.bottom = Math.max(reach.bottom, y + height)
    this.cells.add(solid, { x, y, width, height })
  }

  /** Moves a branch in one direction by as little as it takes to touch nothing that stands. */
  pushClear(solid: Standable, direction: Direction, stays = false): void {
    let hit = this.hit(solid, stays ? -SLACK : NEAR)
    for (; hit; hit = this.hit(solid, NEAR)) push(solid, hit, direction)
    if (this.compared >= MOST_COMPARED) this.pushBeyond(solid, direction)
  }

  private pushBeyond(solid: Standable, direction: Direction): void {
    const { left, top, right, bottom } = this.reach
    const other = { x: left, y: top, width: right - left, height: bottom - top }
    if (isNear(solid.reach, other, NEAR)) push(solid, { own: solid.reach, other }, direction)
  }

  /** Some box that one of these would touch; null also where too many have been compared. */
  private hit(solid: Standable, near: number): Hit | null {
    const { reach } = solid
    const asked = new Set<Standable>()
    for (const other of this.cells.near(withClearance(reach))) {
      if (++this.compared >= MOST_COMPARED) return null
      if (asked.has(other)) continue
      asked.add(other)
      const hit = isNear(reach, other.reach, near) ? this.hitBetween(solid, other, near) : null
      if (hit) return hit
    }
    return null
  }

  /** Two boxes of two branches that are too near to one another, as they stand. */
  private hitBetween(solid: Standable, other: Standable, near: number): Hit | null {
    for (const box of solid.boxes) {
      this.compared++
      const own = standingAt(solid, box)
      if (!isNear(own, other.reach, near)) continue
      const top = own.y - other.y - CLEARANCE
      for (const candidate of other.boxesByBand.between(top, top + own.height + 2 * CLEARANCE)) {
        this.compared++
        const standing = standingAt(other, candidate)
        if (isNear(own, standing, near)) return { own, other: standing }
      }
    }
    return null
  }
}

/** Of two that lead equally far the first is taken. */
const DIRECTIONS = ['down', 'up', 'right', 'left'] as const
type Direction = (typeof DIRECTIONS)[number]

const withClearance = ({ x, y, width, height }: Bounds): Bounds => ({
  x: x - CLEARANCE,
  y: y - CLEARANCE,
  width: width + 2 * CLEARANCE,
  height: height + 2 * CLEARANCE,
})

const standingAt = (at: Standable, { x, y, width, height }: Bounds): Bounds => ({
  x: at.x + x,
  y: at.y + y,
  width,
  height,
})

/** Moves a branch so that one of its boxes is clear of another. */
function push(solid: Standable, { own, other }: Hit, direction: Direction): void {
  switch (direction) {
    case 'down':
      solid.y += other.y + other.height + CLEARANCE - own.y
      break
    case 'up':
      solid.y += other.y - CLEARANCE - own.height - own.y
      break
    case 'right':
      solid.x += other.x + other.width + CLEARANCE - own.x
      break
    case 'left':
      solid.x += other.x - CLEARANCE - own.width - own.x
      break
    default:
      direction satisfies never
  }
}

/**
 * Makes room for branches that keep their places: each arranged branch at the root that is in the way moves outward,
 * those nearest to the root first, so that the order stays and nothing overlaps. Compares boxes only of branches that
 * reach over one another.
 */
export function makeRoom(head: Solid, branches: readonly Solid[], kept: readonly Solid[], setting: Setting): void {
  const standing = new Standing([head, ...kept])
  const sideways = setting === 'down' || setting === 'up'
  const middleOf = ({ x, y, block }: Solid) => (sideways ? x + block.width / 2 : y + block.height / 2)
  const distance = (solid: Solid) => middleOf(solid) - middleOf(head)
  const inOrder = branches
    .map((solid) => ({ solid, outward: distance(solid) }))
    .sort((a, b) => Math.abs(a.outward) - Math.abs(b.outward))
  for (const { solid, outward } of inOrder) {
    const isBeyond = outward >= 0
    standing.pushClear(solid, sideways ? (isBeyond ? 'right' : 'left') : isBeyond ? 'down' : 'up')
    standing.add(solid)
  }
}
