import type { Ground } from '../ways/ground'
import type { Point } from '../ways/way'
import { px } from './drawing'

/** Radii with which a line turns, in px; the largest for which there is room. */
const RADII = [22, 14, 8, 4]

/** A line through these points, each turn as round as there is room. */
export function roundedLine(points: readonly Point[], ground: Ground): string {
  let path = `M${px(points[0]!.x)} ${px(points[0]!.y)}`
  for (let i = 1; i < points.length; i++) {
    const [before, here, after] = [points[i - 1]!, points[i]!, points[i + 1]]
    const turn = after && turnAt(before, here, after, ground)
    path += turn
      ? `L${px(turn.from.x)} ${px(turn.from.y)}Q${px(here.x)} ${px(here.y)} ${px(turn.to.x)} ${px(turn.to.y)}`
      : `L${px(here.x)} ${px(here.y)}`
  }
  return path
}

function turnAt(before: Point, here: Point, after: Point, ground: Ground): { from: Point; to: Point } | null {
  const room = Math.min(distance(before, here), distance(here, after)) / 2
  for (const radius of RADII) {
    const from = towards(here, before, Math.min(radius, room))
    const to = towards(here, after, Math.min(radius, room))
    if (ground.isClear(from, to)) return { from, to }
  }
  return null
}

export const distance = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y)

/** The point at a distance from one point on the way to another. */
export function towards(from: Point, to: Point, far: number): Point {
  const part = far / (distance(from, to) || 1)
  return { x: from.x + (to.x - from.x) * part, y: from.y + (to.y - from.y) * part }
}
