import { type Bounds, boundsOf, type MapLayout } from './boxes'

/** What of a map is seen: a point of the map stands at `k * point + (x, y)` px from the upper left corner of the stage. */
export interface MapView {
  x: number
  y: number
  k: number
}

/** Of the stage, in px. */
export interface StageSize {
  width: number
  height: number
}

/** What is to be seen of a map, in map units. */
export interface Sights {
  /** All of it, with what is drawn around the topics. */
  bounds: Bounds
  /** Of the topics, the root first. */
  boxes: readonly Bounds[]
  /** The root with its first level; null for a map without topics. */
  beginning: Bounds | null
  /** The least scale at which every text can be read. */
  readable: number
}

/** Text is read from this size on the screen on, in px. */
export const READABLE_PX = 9
/** Fitting never shows a small map larger than this. */
const FITTED_MOST = 1.3
/** Where not even the first level can be read, a map is seen like this around its root. */
const AROUND_ROOT = 0.8
/** Free space on all sides, in px. */
const MARGIN = 24
/** Room around all that is drawn of a map within its bounds, in map units. */
export const ROOM_AROUND = 40
/** A map that has outgrown the view is made so much smaller than it must be that it does not outgrow it with the next topic. */
const ROOM_TO_GROW = 0.9

/** What is to be seen of a layout. Linear in its topics. */
export function sightsOf({ boxes }: Pick<MapLayout, 'boxes'>, bounds: Bounds): Sights {
  let smallest = Number.POSITIVE_INFINITY
  for (const { style } of boxes) smallest = Math.min(smallest, style.size)
  const root = boxes[0]
  return {
    bounds,
    boxes,
    beginning: root ? boundsOf([root, ...root.below]) : null,
    readable: boxes.length > 0 ? READABLE_PX / smallest : 0,
  }
}

/** The view that has the middle of bounds in the middle of the stage. */
export function around(size: StageSize, bounds: Bounds, k: number): MapView {
  const x = size.width / 2 - (bounds.x + bounds.width / 2) * k
  const y = size.height / 2 - (bounds.y + bounds.height / 2) * k
  return { x, y, k }
}

/** The largest scale at which bounds fit into the stage. */
export const fittingScale = (size: StageSize, { width, height }: Bounds): number =>
  Math.min((size.width - MARGIN) / Math.max(width, 1), (size.height - MARGIN) / Math.max(height, 1), FITTED_MOST)

export const fitted = (size: StageSize, bounds: Bounds): MapView => around(size, bounds, fittingScale(size, bounds))

/** The whole width, and the top where it is higher than the stage. */
export function fittedToWidth(size: StageSize, bounds: Bounds): MapView {
  const k = Math.min((size.width - MARGIN) / Math.max(bounds.width, 1), FITTED_MOST)
  const view = around(size, bounds, k)
  return bounds.height * k > size.height ? { ...view, y: MARGIN / 2 - bounds.y * k } : view
}

/**
 * How a map is first seen: all of it where every text can then be read, else the root with its first level, else as it was
 * seen last, else the surroundings of its root.
 */
export function firstView(size: StageSize, sights: Sights, last: MapView | null): MapView {
  const { bounds, boxes, beginning, readable } = sights
  if (!beginning || fittingScale(size, bounds) >= readable) return fitted(size, bounds)
  const k = fittingScale(size, beginning)
  if (k >= readable) return around(size, beginning, Math.min(k, 1))
  return last ?? around(size, boxes[0]!, AROUND_ROOT)
}

/** Where bounds are on the stage, in px. */
const onStage = ({ x, y, k }: MapView, bounds: Bounds): Bounds => ({
  x: bounds.x * k + x,
  y: bounds.y * k + y,
  width: bounds.width * k,
  height: bounds.height * k,
})

/** Whether all is seen that is drawn within bounds; the room around it need not be. */
export function isWhole(view: MapView, size: StageSize, bounds: Bounds): boolean {
  const [acrossFree, downFree] = [Math.min(ROOM_AROUND, bounds.width / 2), Math.min(ROOM_AROUND, bounds.height / 2)]
  const { x, y, width, height } = onStage(view, {
    x: bounds.x + acrossFree,
    y: bounds.y + downFree,
    width: bounds.width - 2 * acrossFree,
    height: bounds.height - 2 * downFree,
  })
  return x >= -1 && y >= -1 && x + width <= size.width + 1 && y + height <= size.height + 1
}

/** The part of the map that is seen. */
export const visiblePart = ({ x, y, k }: MapView, size: StageSize): Bounds => ({
  x: -x / k,
  y: -y / k,
  width: size.width / k,
  height: size.height / k,
})

/** Moves by as little as is needed for bounds to be seen with a margin. What is larger than the stage is seen from its beginning. */
export function revealed(view: MapView, size: StageSize, bounds: Bounds): MapView {
  const { x, y, width, height } = onStage(view, bounds)
  const shift = (start: number, length: number, room: number) => {
    const margin = Math.max(0, Math.min(MARGIN, (room - length) / 2))
    if (start < margin || length > room) return margin - start
    return start + length > room - margin ? room - margin - start - length : 0
  }
  return { x: view.x + shift(x, width, size.width), y: view.y + shift(y, height, size.height), k: view.k }
}

const fitsAt = (k: number, size: StageSize, { width, height }: Bounds) =>
  width * k <= size.width && height * k <= size.height

/**
 * The view after a map has changed. One that was seen whole is kept whole as long as it can then be read. Else the first of
 * `wanted` that fits is in view: what is being written with as much around it as there is room for, dearest last.
 */
export function viewAfterChange(
  view: MapView,
  size: StageSize,
  { bounds, readable }: Sights,
  wasWhole: boolean,
  wanted: readonly Bounds[],
): MapView {
  if (wasWhole) {
    if (isWhole(view, size, bounds)) return view
    if (fitsAt(view.k, size, bounds)) return revealed(view, size, bounds)
    const k = fittingScale(size, bounds)
    if (k >= readable) return around(size, bounds, Math.max(k * ROOM_TO_GROW, readable))
  }
  const shown = wanted.find((bounds) => fitsAt(view.k, size, bounds)) ?? wanted.at(-1)
  return shown ? revealed(view, size, shown) : view
}

/**
 * The view after the stage has got another size. What was seen whole is seen whole where it can be read. Else what was
 * seen is seen, where it fits, and stays where it is if it can, as it may lie below a pointer; or what was in the middle stays there. Of
 * `dear` the first that fits is in view, where the last, the dearest, was. Something is seen where something was. Linear in the topics.
 */
export function viewAfterResize(
  view: MapView,
  before: StageSize,
  after: StageSize,
  sights: Sights,
  dear: readonly Bounds[],
): MapView {
  const { bounds, boxes, readable } = sights
  if (isWhole(view, before, bounds)) {
    const wasFitted = Math.abs(view.k / fittingScale(before, bounds) - 1) < 0.01
    if (wasFitted && fittingScale(after, bounds) >= readable) return fitted(after, bounds)
    const kept = viewAfterChange(view, after, sights, true, [])
    if (isWhole(kept, after, bounds)) return kept
  }
  const part = visiblePart(view, before)
  const visible = boxes.filter((box) => touches(box, part))
  const all = visible.length > 0 ? within(boundsOf(visible), part) : null
  const middle = {
    x: view.x + (after.width - before.width) / 2,
    y: view.y + (after.height - before.height) / 2,
    k: view.k,
  }
  const next = all && fitsAt(view.k, after, all) ? revealed(view, after, all) : middle
  const nearest = nearestTo(visible, { x: part.x + part.width / 2, y: part.y + part.height / 2 })
  const dearest = dear.at(-1)
  const isSeen = dearest !== undefined && touches(dearest, part)
  const stays = isSeen ? (dear.find((each) => fitsAt(view.k, after, each)) ?? dearest) : nearest
  return stays ? revealed(next, after, stays) : next
}

/** The part of bounds that lies within others that touch them. */
function within(bounds: Bounds, others: Bounds): Bounds {
  const [x, y] = [Math.max(bounds.x, others.x), Math.max(bounds.y, others.y)]
  const right = Math.min(bounds.x + bounds.width, others.x + others.width)
  const bottom = Math.min(bounds.y + bounds.height, others.y + others.height)
  return { x, y, width: right - x, height: bottom - y }
}

const touches = (a: Bounds, b: Bounds) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height

function nearestTo(boxes: readonly Bounds[], point: { x: number; y: number }): Bounds | null {
  let nearest: Bounds | null = null
  let least = Number.POSITIVE_INFINITY
  for (const box of boxes) {
    const dx = Math.max(box.x - point.x, 0, point.x - box.x - box.width)
    const dy = Math.max(box.y - point.y, 0, point.y - box.y - box.height)
    const distance = dx * dx + dy * dy
    if (distance >= least) continue
    least = distance
    nearest = box
  }
  return nearest
}
