import { type Block, blockOf, type Frame, type Head } from '../block'
import { itemsOf } from '../items'
import { type Gaps, placeRow } from './grow'

/** Sets the children for which `isLeft` holds to the left of the head, the others to the right, both centred on it. */
export function bothSides<Content>(
  head: Head<Content>,
  isLeft: (index: number) => boolean,
  gaps: Gaps,
): Block<Content> {
  const corners = new Array<number>(head.children.length * 2).fill(0)
  const frames: Frame[] = []
  for (const growth of ['right', 'left'] as const) {
    const which = head.children.flatMap((_, i) => (isLeft(i) === (growth === 'left') ? i : []))
    if (which.length === 0) continue
    const items = itemsOf(head.children, which, head.enclosed, growth, gaps.siblings)
    placeRow(head, items, growth, gaps, (i, x, y) => items[i]!.place(x, y, { corners, frames }))
  }
  return blockOf(head, corners, frames, null, null)
}
