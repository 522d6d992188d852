import { type Block, blockOf, type Frame, type Head, SPACING } from '../block'
import { itemsOf, rowOf } from '../items'
import { type Gaps, indices } from './grow'

/** Sets children below the head, one under the other, each indented; mirrored they are indented from its right edge. */
export function indented<Content>(head: Head<Content>, mirrored: boolean, gaps: Gaps): Block<Content> {
  const corners = new Array<number>(head.children.length * 2).fill(0)
  const frames: Frame[] = []
  const growth = mirrored ? 'indented-left' : 'indented'
  const items = itemsOf(head.children, indices(head), head.enclosed, growth, gaps.siblings)
  const first = items[0]!
  const x = mirrored ? head.width - SPACING.indent - first.right : SPACING.indent - first.left
  const y = head.height + gaps.siblings - first.top
  rowOf(items, growth, gaps.siblings).forEach((at, i) => {
    items[i]!.place(x + at.x, y + at.y, { corners, frames })
  })
  return blockOf(head, corners, frames, null, null)
}
