import type Flatbush from 'flatbush'
import type { Bounds } from '../layout/boxes'
import { FreeSpace } from './free-space'
import { indexOf } from './rectangles'
import { type Patience, type Point, type Port, shortWay } from './way'

/** How near a line may come to a box, in px: less than half of what lies between two rows at the closest spacing. */
const NEAREST = 1.2

/** How far into a box a line may reach that is said to touch its edge: what rounding costs, in px. */
const AT_EDGE = 0.4

/** How far a line runs straight on from the box at which it begins or ends, in px. */
const STRAIGHT_ON = 10
/** What it costs to leave a box where its connectors arrive, and at its upper or lower edge, in px of way. */
const AT_CONNECTORS = 30
const AT_ROW = 12

/** Distances to corners at which ways are tried, the best first; from a corner to the next line that turns there. */
const FROM_CORNERS = [9, 6, 3]
const LANE = 4

/** Tiles of free space that are looked at for one way, some 40 ms, and for all connectors of a map together. */
export const MOST_TILES = 40_000
const MOST_IN_ALL = 200_000

/** A box from which a way leads, and the sides at which its connectors are. */
export interface Place extends Bounds {
  busy: { left: boolean; right: boolean }
}

/** A way through free space, from the edge of a box to that of another. */
export interface Way {
  points: readonly Point[]
  /** The corners of boxes at which it turns. */
  turns: readonly string[]
}

/** What stands on a map, for lines that are to pass nothing that can be read. Indexed when first asked. */
export class Ground {
  private known: { index: Flatbush; boxes: readonly Bounds[] } | null = null
  private listed: readonly Bounds[] | null = null
  private space: FreeSpace | null = null
  private readonly patience: Patience = { tiles: MOST_IN_ALL }
  /** How many lines turn at the same corner. */
  private readonly lanes = new Map<string, number>()

  constructor(private readonly obstacles: () => readonly Bounds[]) {}

  private get boxes(): readonly Bounds[] {
    return this.standing.boxes
  }

  private get standing() {
    if (!this.known) {
      const boxes = this.obstacles()
      this.known = { boxes, index: indexOf([[0, 0, 0, 0], ...boxes.map(sidesOf)]) }
    }
    return this.known
  }

  /** Whether a straight line passes through nothing, at least `clearance` px from it. */
  isClear(a: Point, b: Point, clearance = 0): boolean {
    const { index, boxes } = this.standing
    const found = index.search(
      Math.min(a.x, b.x) - clearance,
      Math.min(a.y, b.y) - clearance,
      Math.max(a.x, b.x) + clearance,
      Math.max(a.y, b.y) + clearance,
    )
    return !found.some((i) => i > 0 && passesThrough(a, b, boxes[i - 1]!, clearance))
  }

  /** Whether nothing stands in a rectangle. */
  isFree(asked: Bounds): boolean {
    return this.near(asked).length === 0
  }

  /** What stands in a rectangle. Looks through all where nobody has had them indexed: to look once is quicker than to index. */
  near(asked: Bounds): readonly Bounds[] {
    const { x, y, width, height } = asked
    const { known } = this
    if (known) return known.index.search(x, y, x + width, y + height).flatMap((i) => (i > 0 ? known.boxes[i - 1]! : []))
    this.listed ??= this.obstacles()
    return this.listed.filter((box) => touches(box, asked))
  }

  /** Whether all straight parts between these points are clear; they may begin and end at the edge of a box. */
  areClear(points: readonly Point[]): boolean {
    return points.every((point, i) => i === 0 || this.isClear(points[i - 1]!, point, -AT_EDGE))
  }

  /** A short way from one box to another around everything else; null where there is none, or where patience ends. */
  way(from: Place, to: Place, patience: Patience = this.patience): Way | null {
    this.space ??= new FreeSpace(this.boxes.map(padded))
    const starts = this.portsOf(from)
    const ends = this.portsOf(to)
    const corners = shortWay(this.space, starts, ends, patience)
    if (!corners) return null
    const first = starts.find((port) => isAt(port, corners[0]!))!
    const last = ends.find((port) => isAt(port, corners.at(-1)!))!
    const turns = corners.slice(1, -1).map(({ x, y }) => `${Math.round(x)} ${Math.round(y)}`)
    const points = this.clearOfCorners(corners, turns)
    return { points: [first.edge, ...points, last.edge], turns }
  }

  /** Counts the turns of a way, so that the next ones that turn there run beside it. */
  takeLanes(turns: readonly string[]): void {
    for (const turn of turns) this.lanes.set(turn, (this.lanes.get(turn) ?? 0) + 1)
  }

  private portsOf({ x, y, width, height, busy }: Place): (Port & { edge: Point })[] {
    const ports: (Port & { edge: Point })[] = []
    const add = (edge: Point, dx: number, dy: number, cost: number) => {
      const at = (far: number) => ({ x: edge.x + dx * far, y: edge.y + dy * far })
      const clear = this.isClear(at(NEAREST), at(STRAIGHT_ON), NEAREST)
      if (clear || dy === 0) ports.push({ ...at(clear ? STRAIGHT_ON : NEAREST), cost, edge })
    }
    add({ x, y: y + height / 2 }, -1, 0, busy.left ? AT_CONNECTORS : 0)
    add({ x: x + width, y: y + height / 2 }, 1, 0, busy.right ? AT_CONNECTORS : 0)
    add({ x: x + width / 2, y }, 0, -1, AT_ROW)
    add({ x: x + width / 2, y: y + height }, 0, 1, AT_ROW)
    return ports
  }

  /** Moves each turn away from the corner of its box as far as there is room, the more the more lines turn there. */
  private clearOfCorners(corners: readonly Point[], turns: readonly string[]): Point[] {
    const points = [...corners]
    for (let i = 1; i < points.length - 1; i++) {
      const [before, here, after] = [points[i - 1]!, points[i]!, points[i + 1]!]
      const out = outward(before, here, after)
      const lane = (this.lanes.get(turns[i - 1]!) ?? 0) * LANE
      const moved = [...FROM_CORNERS.map((far) => far + lane), ...FROM_CORNERS]
        .map((far) => ({ x: here.x + out.x * far, y: here.y + out.y * far }))
        .find((point) => this.isClear(before, point, NEAREST - 0.2) && this.isClear(point, after, NEAREST - 0.2))
      if (moved) points[i] = moved
    }
    return points
  }
}

const touches = (a: Bounds, b: Bounds) =>
  a.x <= b.x + b.width && b.x <= a.x + a.width && a.y <= b.y + b.height && b.y <= a.y + a.height

const isAt = (a: Point, b: Point) => a.x === b.x && a.y === b.y

const sidesOf = ({ x, y, width, height }: Bounds) => [x, y, x + width, y + height] as const

const padded = ({ x, y, width, height }: Bounds): Bounds => ({
  x: x - NEAREST,
  y: y - NEAREST,
  width: width + 2 * NEAREST,
  height: height + 2 * NEAREST,
})

/** The direction away from the inner side of a turn, of length 1 to √2 across a corner of a box. */
function outward(before: Point, here: Point, after: Point): Point {
  const unit = (from: Point, to: Point) => {
    const length = Math.hypot(to.x - from.x, to.y - from.y) || 1
    return { x: (to.x - from.x) / length, y: (to.y - from.y) / length }
  }
  const [come, go] = [unit(before, here), unit(here, after)]
  const out = { x: Math.sign(come.x - go.x), y: Math.sign(come.y - go.y) }
  const length = Math.hypot(out.x, out.y) || 1
  return { x: out.x / length, y: out.y / length }
}

/** Whether a straight line passes through the inside of a box grown by `clearance`; touching its edge is none. Liang and Barsky 1984. */
export function passesThrough(a: Point, b: Point, box: Bounds, clearance = 0): boolean {
  let [enter, leave] = [0, 1]
  const clip = (from: number, by: number, low: number, high: number): boolean => {
    if (by === 0) return from > low && from < high
    const [t1, t2] = [(low - from) / by, (high - from) / by]
    enter = Math.max(enter, Math.min(t1, t2))
    leave = Math.min(leave, Math.max(t1, t2))
    return enter < leave
  }
  return (
    clip(a.x, b.x - a.x, box.x - clearance, box.x + box.width + clearance) &&
    clip(a.y, b.y - a.y, box.y - clearance, box.y + box.height + clearance)
  )
}
