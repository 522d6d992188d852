import { named } from '../../core/commands/command'
import type { MapLayout, TopicBox } from '../../core/layout/boxes'
import { SIGN_SIZE } from '../../core/layout/map-layout'
import type { TopicId } from '../../core/records/ids'
import { isRoot, parentOf, type Side, sideOf } from '../../core/records/place'
import type { Records } from '../../core/records/records'
import { ancestors } from '../../core/tree/walk'

/** Where dragged branches would hang, with the words that say so. */
export interface DropTarget {
  box: TopicBox
  zone: 'into' | 'before' | 'after'
  parent: TopicId
  after: TopicId | null | 'last'
  side: Side | null
  words: string
}

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth']
const ordinal = (place: number) => ORDINALS[place] ?? `number ${place + 1}`

/** The nearest box at a point, with a little reach around it. */
function boxAt(layout: MapLayout, x: number, y: number): TopicBox | null {
  const reach = 4
  for (let i = layout.boxes.length - 1; i >= 0; i--) {
    const box = layout.boxes[i]!
    if (
      x >= box.x - SIGN_SIZE &&
      x <= box.x + box.width + SIGN_SIZE &&
      y >= box.y - reach &&
      y <= box.y + box.height + reach
    )
      return box
  }
  return null
}

/**
 * Where a point lies in the gap between two siblings that stand beside one another, however wide it is: behind the first of them. Of
 * several gaps the narrowest counts. Null where it lies in none. O(boxes).
 */
function betweenSiblings(
  records: Records,
  layout: MapLayout,
  at: { x: number; y: number },
  carried: ReadonlySet<string>,
): DropTarget | null {
  let found: { width: number; first: TopicBox } | null = null
  for (const above of layout.boxes) {
    if (isCarried(above, carried)) continue
    const shown = above.below.filter((box) => !box.byHand && !carried.has(box.topic.id))
    shown.forEach((first, i) => {
      const second = shown.slice(i + 1).find(({ growth }) => growth === first.growth)
      const width = second ? gapAround(first, second, at) : null
      if (width !== null && (!found || width < found.width)) found = { width, first }
    })
  }
  const first = (found as { first: TopicBox } | null)?.first
  const parent = first && parentOf(first.topic)
  if (!first || !parent) return null
  const place = records
    .children(parent)
    .filter(({ id }) => !carried.has(id))
    .indexOf(first.topic)
  return {
    box: first,
    zone: 'after',
    parent,
    after: first.topic.id,
    side: sideOf(first.topic),
    words: `becomes a child of ${named(records.need('topic', parent).text)}, ${ordinal(place + 1)}`,
  }
}

function isCarried(box: TopicBox, carried: ReadonlySet<string>): boolean {
  for (let at: TopicBox | null = box; at; at = at.parent) if (carried.has(at.topic.id)) return true
  return false
}

/** How wide the gap between two boxes is, in map units, where a point lies in it; else null. They stand above or beside one another. */
function gapAround(a: TopicBox, b: TopicBox, at: { x: number; y: number }): number | null {
  const gapIn = (from: 'x' | 'y', size: 'width' | 'height', across: 'x' | 'y', breadth: 'width' | 'height') => {
    const [near, far] = a[from] <= b[from] ? [a, b] : [b, a]
    const [begin, end] = [near[from] + near[size], far[from]]
    const isBetween = begin <= end && at[from] >= begin && at[from] <= end
    const low = Math.min(a[across], b[across]) - SIGN_SIZE
    const high = Math.max(a[across] + a[breadth], b[across] + b[breadth]) + SIGN_SIZE
    return isBetween && at[across] >= low && at[across] <= high ? end - begin : null
  }
  return gapIn('y', 'height', 'x', 'width') ?? gapIn('x', 'width', 'y', 'height')
}

/**
 * What dropping at a point of the map would do. The upper and lower quarter of a topic mean before and after it, the
 * middle means below it; at the root the half decides on the side; the gap between two siblings means between them, where topics
 * are arranged. Null where nothing can be dropped.
 */
export function dropTargetAt(
  records: Records,
  layout: MapLayout,
  x: number,
  y: number,
  moving: readonly TopicId[],
  hasGaps = true,
): DropTarget | null {
  const carried = new Set<string>(moving)
  const box = boxAt(layout, x, y)
  if (!box) return hasGaps ? betweenSiblings(records, layout, { x, y }, carried) : null
  const { topic } = box
  if (carried.has(topic.id)) return null
  for (const above of ancestors(records, topic)) if (carried.has(above.id)) return null
  const part = (y - box.y) / box.height
  const parent = parentOf(topic)
  if (parent !== null && (part < 0.25 || part > 0.75)) {
    const zone = part < 0.25 ? 'before' : 'after'
    const siblings = records.children(parent).filter((sibling) => !carried.has(sibling.id))
    const at = siblings.findIndex((sibling) => sibling.id === topic.id)
    const all = records.childrenWithTrashed(parent).filter((sibling) => !carried.has(sibling.id))
    const before = all[all.findIndex((sibling) => sibling.id === topic.id) - 1]
    const after = zone === 'after' ? topic.id : (before?.id ?? null)
    const place = ordinal(zone === 'after' ? at + 1 : at)
    return {
      box,
      zone,
      parent,
      after,
      side: sideOf(topic),
      words: `becomes a child of ${named(records.need('topic', parent).text)}, ${place}`,
    }
  }
  const place = ordinal(records.children(topic.id).filter((child) => !carried.has(child.id)).length)
  const side = isRoot(topic) ? (x < box.x + box.width / 2 ? 'left' : 'right') : null
  return {
    box,
    zone: 'into',
    parent: topic.id,
    after: 'last',
    side,
    words: `becomes a child of ${named(topic.text)}, ${side ? `${place}, on the ${side}` : place}`,
  }
}
