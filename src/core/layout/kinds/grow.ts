import { type Block, blockOf, type Frame, type Growth, type Head, SPACING } from '../block'
import { contourAbove, type Row } from '../contour'
import { type Boxed, isAcross, itemsOf, setItems } from '../items'

const NONE: never[] = []

/**
 * A head without children: the most frequent block by far, so it keeps nothing that follows from its size, and its
 * contour is made only where a row needs it.
 */
export class Leaf<Content> implements Block<Content> {
  top = 0

  constructor(
    readonly content: Content,
    readonly width: number,
    readonly height: number,
  ) {}

  get left(): number {
    return 0
  }
  get right(): number {
    return this.width
  }
  get bottom(): number {
    return this.height
  }
  get children(): readonly Block<Content>[] {
    return NONE
  }
  get corners(): readonly number[] {
    return NONE
  }
  get frames(): readonly Frame[] {
    return NONE
  }
  get growth(): null {
    return null
  }
  get contour(): null {
    return null
  }
}

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
  const { children } = head
  const corners = new Array<number>(children.length * 2).fill(0)
  const frames: Frame[] = []
  // Without enclosures the branches are their own items: most rows of a map are so, and it saves an object for each.
  const unframed = head.enclosed.length === 0
  const items = unframed ? children : itemsOf(children, indices(head), head.enclosed, growth, gaps.siblings)
  const { row, middle } = placeRow(head, items, growth, gaps, (i, x, y) => {
    const item = items[i]!
    if ('place' in item) item.place(x, y, { corners, frames })
    else {
      corners[2 * i] = x
      corners[2 * i + 1] = y
    }
  })
  return blockOf(head, corners, frames, growth, contourAbove(length, half, gaps.level, row, middle))
}

export const indices = ({ children }: Head): number[] => children.map((_, i) => i)

/** Sets boxes as one row away from the head, centred on it; `put` gets where the head of each stands. */
export function placeRow(
  head: { width: number; height: number },
  boxes: readonly Boxed[],
  growth: 'right' | 'left' | 'down' | 'up',
  gaps: Gaps,
  put: (index: number, x: number, y: number) => void,
): { row: Row; middle: number } {
  const row = setItems(boxes, growth, gaps.siblings)
  const middle = row.positions.at(-1)! / 2
  for (let i = 0; i < boxes.length; i++) {
    const box = boxes[i]!
    const across = row.positions[i]! - middle
    switch (growth) {
      case 'right':
        put(i, head.width + gaps.level - box.left, head.height / 2 + across - box.height / 2)
        break
      case 'left':
        put(i, -gaps.level - box.right, head.height / 2 + across - box.height / 2)
        break
      case 'down':
        put(i, head.width / 2 + across - box.width / 2, head.height + gaps.level - box.top)
        break
      case 'up':
        put(i, head.width / 2 + across - box.width / 2, -gaps.level - box.bottom)
        break
      default:
        growth satisfies never
    }
  }
  return { row, middle }
}
