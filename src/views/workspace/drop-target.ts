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
 * What dropping at a point of the map would do. The upper and lower quarter of a topic mean before and after it, the
 * middle means below it; at the root the half decides on the side. Null where nothing can be dropped.
 */
export function dropTargetAt(
  records: Records,
  layout: MapLayout,
  x: number,
  y: number,
  moving: readonly TopicId[],
): DropTarget | null {
  const box = boxAt(layout, x, y)
  if (!box) return null
  const { topic } = box
  const carried = new Set<string>(moving)
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
