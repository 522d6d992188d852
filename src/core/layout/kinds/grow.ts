import { type Block, blockOf, type Growth, type Head, SPACING } from '../block'
import { contourAbove, Row } from '../contour'
import { addTo, type Boxed, type Item, isAcross, itemsOf, nearEdge, type Placed, placedBelow } from '../items'

const NONE: never[] = []

/** Gaps of a level, with the spacing of the map applied. */
export interface Gaps {
  level: number
  siblings: number
}

export function gapsAt(level: number, growth: Growth, spacing: number): Gaps {
  const table = growth === 'down' || growth === 'up' ? SPACING.columns : SPACING.siblings
  return { level: SPACING.level * spacing, siblings: table[Math.min(level, 2)]! * spacing }
}

/**
 * Sets children in one direction: right, left, down or up. Branches nestle into one another's gaps; a child that grows
 * another way counts as a box. The head stands at the middle of its children.
 */
export function grow<Content>(
  head: Head<Content>,
  growth: 'right' | 'left' | 'down' | 'up',
  gaps: Gaps,
): Block<Content> {
  const across = isAcross(growth)
  const length = across ? head.width : head.height
  const half = (across ? head.height : head.width) / 2
  const { lengths, children } = head
  // Without enclosures the branches are their own items: most rows of a map are so, and it saves an object for each.
  if (head.enclosed.length === 0) {
    const corners = lengths.reserve(children.length * 2)
    const row = setRow(head, children, growth, gaps, corners)
    return blockOf(head, corners, NONE, growth, contourAbove(lengths, length, half, gaps.level, row))
  }
  const placed = placedBelow(head)
  const row = placeRow(head, itemsOf(head, indices(head), head.enclosed, growth, gaps.siblings), growth, gaps, placed)
  return blockOf(head, placed.corners, placed.frames, growth, contourAbove(lengths, length, half, gaps.level, row))
}

export const indices = ({ children }: Head): number[] => children.map((_, i) => i)

/** Sets items as one row away from the head, centred on it, and places what is inside of each. */
export function placeRow(
  head: Head,
  items: readonly Item[],
  growth: 'right' | 'left' | 'down' | 'up',
  gaps: Gaps,
  placed: Placed,
): Row {
  const { lengths } = head
  const corners = lengths.reserve(items.length * 2)
  const row = setRow(head, items, growth, gaps, corners)
  items.forEach((item, i) => {
    item.place(lengths.numbers[corners + 2 * i]!, lengths.numbers[corners + 2 * i + 1]!, placed)
  })
  return row
}

/** Sets boxes as one row away from the head, centred on it; where the head of each stands goes to its corner. */
function setRow(
  head: Head,
  boxes: readonly Boxed[],
  growth: 'right' | 'left' | 'down' | 'up',
  gaps: Gaps,
  corners: number,
): Row {
  const { lengths, width, height } = head
  const row = new Row(lengths, gaps.siblings)
  for (let i = 0; i < boxes.length; i++) lengths.numbers[corners + 2 * i] = addTo(row, boxes[i]!, growth)
  const { numbers } = lengths
  const middle = row.lastShift / 2
  const along = growth === 'right' || growth === 'down' ? gaps.level : -gaps.level
  for (let i = 0; i < boxes.length; i++) {
    const box = boxes[i]!
    const at = corners + 2 * i
    const across = numbers[at]! - middle
    if (isAcross(growth)) {
      numbers[at] = along + (growth === 'right' ? width : 0) - nearEdge(box, growth)
      numbers[at + 1] = height / 2 + across - box.height / 2
    } else {
      numbers[at] = width / 2 + across - box.width / 2
      numbers[at + 1] = along + (growth === 'down' ? height - box.top : -box.bottom)
    }
  }
  return row
}
