import { type Block, blockOf, type Head } from '../block'
import { itemsOf, placedBelow } from '../items'
import { type Gaps, placeRow } from './grow'

/** Sets the children for which `isLeft` holds to the left of the head, the others to the right, both centred on it. */
export function bothSides<Content>(
  head: Head<Content>,
  isLeft: (index: number) => boolean,
  gaps: Gaps,
): Block<Content> {
  const placed = placedBelow(head)
  for (const growth of ['right', 'left'] as const) {
    const which = head.children.flatMap((_, i) => (isLeft(i) === (growth === 'left') ? i : []))
    if (which.length === 0) continue
    const items = itemsOf(head, which, head.enclosed, growth, gaps.siblings)
    placeRow(head, items, growth, gaps, placed)
  }
  return blockOf(head, placed.corners, placed.frames, null, null)
}
