import type { Bounds } from '../layout/boxes'
import type { Bend } from '../records/crosslink'
import type { Ground, Place } from '../ways/ground'
import type { Patience, Point } from '../ways/way'
import { px } from './drawing'
import { straightParts } from './path'
import { distance, roundedLine } from './rounded-line'

const middle = ({ x, y, width, height }: Bounds): Point => ({ x: x + width / 2, y: y + height / 2 })

/** The place through which a line that was bent runs between two ends. */
export function placeOfBend({ along, aside }: Bend, from: Bounds, to: Bounds): Point {
  const [a, b] = [middle(from), middle(to)]
  const length = distance(a, b) || 1
  const [across, down] = [(b.x - a.x) / length, (b.y - a.y) / length]
  return { x: a.x + (b.x - a.x) * along - down * aside, y: a.y + (b.y - a.y) * along + across * aside }
}

/** The bend with which a line between two ends runs through a place: the reverse of `placeOfBend`. */
export function bendThrough(place: Point, from: Bounds, to: Bounds): Bend {
  const [a, b] = [middle(from), middle(to)]
  const length = distance(a, b) || 1
  const [across, down] = [(b.x - a.x) / length, (b.y - a.y) / length]
  const [x, y] = [place.x - a.x, place.y - a.y]
  const clamped = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value))
  return {
    along: clamped((x * across + y * down) / length, -1, 2),
    aside: clamped(Math.round(y * across - x * down), -5_000, 5_000),
  }
}

/** Where a bent line runs, as `Course` in `crosslink-line.ts`. */
interface Bent {
  path: string
  points: readonly Point[]
  turns: readonly string[]
}

/**
 * A line between two ends by way of a place: as one swing where nothing stands in its way, else around what does; null where there
 * is no way, or where patience ends.
 */
export function bentLine(from: Place, to: Place, via: Point, ground: Ground, patience: Patience): Bent | null {
  const swing = swingThrough(from, to, via)
  if (ground.areClear(swing.points)) return swing
  const stop: Place = { ...via, width: 0, height: 0, busy: { left: false, right: false } }
  if (!ground.isFree({ x: via.x - 1, y: via.y - 1, width: 2, height: 2 })) return null
  const [there, on] = [ground.way(from, stop, patience), ground.way(stop, to, patience)]
  if (!there || !on) return null
  const points = withoutSteps([...there.points, ...on.points.slice(1)], there.points.length - 1, ground)
  return { path: roundedLine(points, ground), points, turns: [...there.turns, ...on.turns] }
}

/** Without the steps aside that a way makes where it leaves a box: there is none at the place by way of which it runs. */
function withoutSteps(points: readonly Point[], at: number, ground: Ground): Point[] {
  const via = points[at]!
  const isStep = (step: number, beyond: number) =>
    points[beyond] !== undefined && step > 0 && step < points.length - 1 && ground.isClear(points[beyond]!, via)
  return points.filter((_, i) => !(i === at - 1 && isStep(i, at - 2)) && !(i === at + 1 && isStep(i, at + 2)))
}

/** The path of a line between two ends while it is bent by hand, whatever stands in its way. */
export const swingPath = (from: Bounds, to: Bounds, via: Point): string => swingThrough(from, to, via).path

/** Leaves each end by the upright edge that is nearer to the place, and passes that in the direction from end to end. */
function swingThrough(from: Bounds, to: Bounds, via: Point): Bent {
  const edge = (box: Bounds) => {
    const isLeft = via.x < box.x + box.width / 2
    return { x: isLeft ? box.x : box.x + box.width, y: box.y + box.height / 2, out: isLeft ? -1 : 1 }
  }
  const [start, end] = [edge(from), edge(to)]
  const length = distance(start, end) || 1
  const [across, down] = [(end.x - start.x) / length, (end.y - start.y) / length]
  const [before, after] = [distance(start, via) / 3, distance(via, end) / 3]
  const curve = (a: Point, b: Point, c: Point) => `C${px(a.x)} ${px(a.y)} ${px(b.x)} ${px(b.y)} ${px(c.x)} ${px(c.y)}`
  const path =
    `M${px(start.x)} ${px(start.y)}` +
    curve(
      { x: start.x + start.out * before, y: start.y },
      { x: via.x - across * before, y: via.y - down * before },
      via,
    ) +
    curve({ x: via.x + across * after, y: via.y + down * after }, { x: end.x + end.out * after, y: end.y }, end)
  return { path, points: straightParts(path)[0]!, turns: [] }
}
