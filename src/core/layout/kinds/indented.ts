import { type Block, blockOf, type Head, SPACING } from '../block'
import { itemsOf, nearEdge, placedBelow, rowOf } from '../items'
import { type Gaps, indices } from './grow'

/**
 * Sets children one under the other, each indented: below the head, from its left edge or, mirrored, from its right
 * one; or all of them above the head. They read from top to bottom in any case.
 */
export function indented<Content>(
  head: Head<Content>,
  growth: 'indented' | 'indented-left' | 'indented-up',
  gaps: Gaps,
): Block<Content> {
  const placed = placedBelow(head)
  const items = itemsOf(head, indices(head), head.enclosed, growth, gaps.siblings)
  const first = items[0]!
  const row = rowOf(head.lengths, items, growth, gaps.siblings)
  const x =
    growth === 'indented-left'
      ? head.width - SPACING.indent - nearEdge(first, growth)
      : SPACING.indent - nearEdge(first, growth)
  const y =
    growth === 'indented-up'
      ? -gaps.siblings - row.at(-1)!.y - items.at(-1)!.bottom
      : head.height + gaps.siblings - first.top
  row.forEach((at, i) => {
    items[i]!.place(x + at.x, y + at.y, placed)
  })
  return blockOf(head, placed.corners, placed.frames, null, null)
}
