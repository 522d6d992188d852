import { type Block, blockOf, type Head } from '../block'
import { itemsOf, placedBelow, rowOf } from '../items'
import type { Gaps } from './grow'

/** How far from the middle of the head a branch stays that stands above or beneath it. */
const INNER = 14
/** Width of the arc beside the head, in level gaps. */
const ARC = 1.6

/**
 * Sets children around the head: on the right from the top down, on the left from the bottom up, their near ends on an
 * ellipse. Each branch has a height of its own, so that moving it along the ellipse never brings two together.
 */
export function around<Content>(head: Head<Content>, isLeft: (index: number) => boolean, gaps: Gaps): Block<Content> {
  const placed = placedBelow(head)
  for (const growth of ['right', 'left'] as const) {
    const chosen = head.children.flatMap((_, i) => (isLeft(i) === (growth === 'left') ? i : []))
    if (chosen.length === 0) continue
    const items = itemsOf(head, chosen, head.enclosed, 'indented', gaps.siblings)
    if (growth === 'left') items.reverse()
    const row = rowOf(head.lengths, items, 'indented', gaps.siblings)
    const first = items[0]!
    const last = items.at(-1)!
    const height = row.at(-1)!.y + last.bottom - first.top
    const start = head.height / 2 - height / 2 - first.top
    items.forEach((item, i) => {
      const y = start + row[i]!.y
      const near = nearEnd(head, gaps, height, y + item.top - head.height / 2, y + item.bottom - head.height / 2)
      const x = growth === 'right' ? head.width / 2 + near - item.left : head.width / 2 - near - item.right
      item.place(x, y, placed)
    })
  }
  return blockOf(head, placed.corners, placed.frames, null, null)
}

/** Distance from the middle of the head to the near end of a branch that reaches from `top` to `bottom` beside it. */
function nearEnd(head: Head, gaps: Gaps, height: number, top: number, bottom: number): number {
  const beside = head.width / 2 + gaps.level * ARC
  const middle = (top + bottom) / 2
  const half = Math.max(height / 2, 1)
  const arc = beside * Math.sqrt(Math.max(0, 1 - (middle / half) ** 2))
  const clearsHead = top > head.height / 2 + gaps.siblings || bottom < -head.height / 2 - gaps.siblings
  return Math.max(arc, clearsHead ? INNER : head.width / 2 + gaps.level)
}
