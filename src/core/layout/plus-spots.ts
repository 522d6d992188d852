import type { Point } from '../records/place'
import type { Bounds, TopicBox } from './boxes'
import { FOLD_SPACE } from './solid'

/** Where a topic offers a child, a sibling, and a cross-link that begins there: middles of round buttons, in map units; null where there is room for none. */
export interface PlusSpots {
  child: Point | null
  sibling: Point | null
  link: Point | null
}

/**
 * Places for three buttons of a radius beside a topic that cover no words, neither its own nor those of neighbours: a child
 * where it would grow, a sibling where that would stand, a link on the other side, else at a corner. `near` tells what stands in a rectangle.
 */
export function plusSpots(box: TopicBox, radius: number, near: (bounds: Bounds) => readonly Bounds[]): PlusSpots {
  const around = spotsAround(box, radius)
  const reach = FOLD_SPACE + 3 * radius
  const neighbours = near({
    x: box.x - reach,
    y: box.y - reach,
    width: box.width + 2 * reach,
    height: box.height + 2 * reach,
  })
  const isClear = ({ x, y }: Point) =>
    neighbours.every(
      (other) =>
        x + radius < other.x ||
        x - radius > other.x + other.width ||
        y + radius < other.y ||
        y - radius > other.y + other.height,
    )
  const growsDown = box.growth === 'down' || box.growth === 'up'
  const outward = growsDown ? (box.growth === 'down' ? around.below : around.above) : around.outward
  const fallbacks = [around.outwardLower, around.outwardUpper, around.below, around.above, around.inwardLower]
  const child = [outward, ...fallbacks].find(isClear) ?? null
  const besides = growsDown ? [around.right, around.left] : [around.below, around.belowOutward]
  const taken: Point[] = child ? [child] : []
  const isFree = (spot: Point) =>
    isClear(spot) && taken.every(({ x, y }) => Math.hypot(spot.x - x, spot.y - y) >= 2 * radius)
  const sibling = [...besides, around.inwardLower, around.inwardUpper, around.outwardLower].find(isFree) ?? null
  if (sibling) taken.push(sibling)
  const corners = [around.aboveInward, around.aboveOutward, around.inwardUpper, around.inwardLower, around.outwardUpper]
  const link = [around.above, ...corners, around.belowInward].find(isFree) ?? null
  return { child, sibling, link }
}

/** From the edge at which the width is changed to the middle of a button, in its radii. */
const FROM_EDGE = 1.5

function spotsAround(box: TopicBox, radius: number) {
  const { x, y, width, height, growsLeft } = box
  // Beside the number of what is folded away, where there is one.
  const beside = radius * FROM_EDGE + (box.hidden > 0 ? FOLD_SPACE - 2 : 0)
  const [left, right] = [x - radius - 1, x + width + radius + 1]
  const out = growsLeft ? x - beside : x + width + beside
  const back = growsLeft ? right : left
  const middle = y + height / 2
  const [above, below] = [y - radius - 1, y + height + radius + 1]
  return {
    outward: { x: out, y: middle },
    outwardLower: { x: out, y: y + height - radius * 0.2 },
    outwardUpper: { x: out, y: y + radius * 0.2 },
    inwardLower: { x: back, y: y + height - radius * 0.2 },
    inwardUpper: { x: back, y: y + radius * 0.2 },
    below: { x: x + width / 2, y: below },
    belowOutward: { x: growsLeft ? x + radius : x + width - radius, y: below },
    belowInward: { x: growsLeft ? x + width - radius : x + radius, y: below },
    above: { x: x + width / 2, y: above },
    aboveOutward: { x: growsLeft ? x + radius : x + width - radius, y: above },
    aboveInward: { x: growsLeft ? x + width - radius : x + radius, y: above },
    left: { x: left, y: middle },
    right: { x: right, y: middle },
  }
}
