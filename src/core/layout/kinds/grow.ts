import { type Block, blockOf, type Frame, type Growth, type Head, SPACING } from '../block'
import { type Item, isAcross, itemsOf, outlineOf } from '../items'
import { boxOutline, outlineAbove, type Row, setRow } from '../outline'

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
  if (head.children.length === 0) return blockOf(head, NONE, NONE, growth, boxOutline(length, half, half))
  const corners = new Array<number>(head.children.length * 2).fill(0)
  const frames: Frame[] = []
  const items = itemsOf(head.children, indices(head), head.enclosed, growth, gaps.siblings)
  const { row, middle } = placeRow(head, items, growth, gaps, { corners, frames })
  return blockOf(head, corners, frames, growth, outlineAbove(length, half, gaps.level, row, middle))
}

export const indices = ({ children }: Head): number[] => children.map((_, i) => i)

/** Sets items as one row away from the head, centred on it. */
export function placeRow(
  head: Head,
  items: readonly Item[],
  growth: 'right' | 'left' | 'down' | 'up',
  gaps: Gaps,
  placed: { corners: number[]; frames: Frame[] },
): { row: Row; middle: number } {
  const row = setRow(
    items.map((item) => outlineOf(item, growth)),
    gaps.siblings,
  )
  const middle = row.positions.at(-1)! / 2
  items.forEach((item, i) => {
    const across = row.positions[i]! - middle
    switch (growth) {
      case 'right':
        item.place(head.width + gaps.level - item.left, head.height / 2 + across - item.height / 2, placed)
        return
      case 'left':
        item.place(-gaps.level - item.right, head.height / 2 + across - item.height / 2, placed)
        return
      case 'down':
        item.place(head.width / 2 + across - item.width / 2, head.height + gaps.level - item.top, placed)
        return
      case 'up':
        item.place(head.width / 2 + across - item.width / 2, -gaps.level - item.bottom, placed)
        return
      default:
        growth satisfies never
    }
  })
  return { row, middle }
}
