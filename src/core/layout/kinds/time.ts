import { type Block, blockOf, type Head } from '../block'
import { type Item, itemsOf, placedBelow } from '../items'
import type { Gaps } from './grow'

/** Length of the scale for each topic that stands on it, and the least length of all, in px. */
const LENGTH_EACH = 120
const LENGTH_LEAST = 480
/** From a stem to the branch that hangs on it. */
export const BESIDE_STEM = 8
/** Room above the axis for its scale and the mark of today. */
const ABOVE_AXIS = 34

/** The scale of a branch along time: where a day stands, relative to the head's upper left corner. */
interface TimeScale {
  /** Days since 1970-01-01 at both ends. */
  first: number
  last: number
  /** x of both ends, y of the axis, in px. */
  start: number
  end: number
  axis: number
}

/** The scale on which these days stand beside a head; null where there is none. */
function timeScale(
  head: { width: number; height: number },
  days: readonly (number | null)[],
  gaps: Gaps,
): TimeScale | null {
  const dated = days.filter((day) => day !== null)
  if (dated.length === 0) return null
  const first = dated.reduce((least, day) => Math.min(least, day))
  const last = dated.reduce((most, day) => Math.max(most, day))
  const start = head.width + gaps.level
  const end = start + (first === last ? 0 : Math.max(LENGTH_LEAST, LENGTH_EACH * dated.length))
  return { first, last, start, end, axis: head.height / 2 }
}

const dayAt = ({ first, last, start, end }: TimeScale, day: number): number =>
  first === last ? start : start + ((day - first) / (last - first)) * (end - start)

/**
 * Sets children on a scale of days beside the head. Each hangs beneath the axis at its day, from the last day to the first,
 * right below the lowest of those whose stems it would reach: so no stem comes down through a branch. Those without a day
 * follow at the end of the scale, one under the other. An enclosure frames each of its topics, which need not be neighbours
 * here. O(children × log children).
 */
export function alongTime<Content>(head: Head<Content>, days: readonly (number | null)[], gaps: Gaps): Block<Content> {
  const placed = placedBelow(head)
  const items = head.children.map((_, i) => itemsOf(head, [i], head.enclosed, 'indented', gaps.siblings)[0]!)
  const scale = timeScale(head, days, gaps)
  let reach = scale?.end ?? head.width
  /** Those that others can still reach, from the right: where their stems are, and how far down they take the room. */
  const hung: { stem: number; bottom: number }[] = []
  for (const { item, stem } of scale ? fromLastDay(items, days, scale) : []) {
    const x = stem + BESIDE_STEM - item.left
    let top = head.height + gaps.siblings * 2
    for (let at = hung.at(-1); at && at.stem < x + item.right + gaps.siblings; at = hung.at(-1)) {
      top = Math.max(top, at.bottom)
      hung.pop()
    }
    item.place(x, top - item.top, placed)
    hung.push({ stem, bottom: top + item.bottom - item.top + gaps.siblings })
    reach = Math.max(reach, x + item.right)
  }
  let cursor = 0
  items.forEach((item, i) => {
    if ((days[i] ?? null) !== null) return
    item.place(reach + gaps.level - item.left, cursor - item.top, placed)
    cursor += item.bottom - item.top + gaps.siblings
  })
  const block = blockOf(head, placed.corners, placed.frames, null, null)
  if (scale) block.top = Math.min(block.top, scale.axis - ABOVE_AXIS)
  return block
}

function fromLastDay(items: readonly Item[], days: readonly (number | null)[], scale: TimeScale) {
  return items
    .flatMap((item, index) => {
      const day = days[index] ?? null
      return day === null ? [] : [{ item, index, stem: dayAt(scale, day) }]
    })
    .sort((a, b) => b.stem - a.stem || b.index - a.index)
}
