import { type Block, type Enclosed, type Frame, type Growth, type Head, type Reach, SPACING } from './block'
import { type Contour, Row } from './contour'
import type { Lengths } from './lengths'

/** Something that can be set in a row: how far it reaches, seen from the head at which its connector arrives. */
export interface Boxed extends Reach {
  /** Size of that head. */
  width: number
  height: number
  /** Set where it grows in one direction itself. */
  growth: Growth | null
  contour: Contour | null
  /** How far a frame reaches over the near edge of the topics in it, which stand in one column with their siblings. */
  overhang?: number
}

/** Where the near edges of topics line up in a row that grows across. */
export const nearEdge = ({ left, right, overhang = 0 }: Boxed, growth: Growth): number =>
  growth === 'left' || growth === 'indented-left' ? right - overhang : left + overhang

/** One thing in a row of children: a branch, or an enclosure with the neighbouring branches inside it. */
export interface Item extends Boxed {
  /** Puts the head's corner at a point: tells the corners of all branches inside, and the frames around them. */
  place(x: number, y: number, placed: Placed): void
}

/** Where children are put: their corners, and frames around them, relative to the head of the parent. */
export interface Placed {
  lengths: Lengths
  /** Where the corners of the children begin. */
  corners: number
  frames: Frame[]
}

/** Room for the children of a head. */
export const placedBelow = ({ lengths, children }: Head): Placed => ({
  lengths,
  corners: lengths.reserve(children.length * 2),
  frames: [],
})

export const isAcross = (growth: Growth): boolean => growth === 'right' || growth === 'left'

/** Adds an item to a row and tells its position. One that does not grow the same way itself counts as a box. */
export function addTo(row: Row, item: Boxed, growth: Growth): number {
  if (item.contour && item.growth === growth) return row.add(item.contour)
  if (isAcross(growth))
    return row.addBox(item.right - item.left, item.height / 2 - item.top, item.bottom - item.height / 2)
  return row.addBox(item.bottom - item.top, item.width / 2 - item.left, item.right - item.width / 2)
}

/** A branch as an item. A class, because a map has thousands of them. */
class BranchItem implements Item {
  constructor(
    private readonly block: Block,
    private readonly index: number,
  ) {}

  get growth(): Growth | null {
    return this.block.growth
  }
  get contour(): Contour | null {
    return this.block.contour
  }

  get left(): number {
    return this.block.left
  }
  get top(): number {
    return this.block.top
  }
  get right(): number {
    return this.block.right
  }
  get bottom(): number {
    return this.block.bottom
  }
  get width(): number {
    return this.block.width
  }
  get height(): number {
    return this.block.height
  }

  place(x: number, y: number, { lengths, corners }: Placed): void {
    lengths.numbers[corners + 2 * this.index] = x
    lengths.numbers[corners + 2 * this.index + 1] = y
  }
}

/** Where items stand relative to the first one's corner when they are set in a row, with what they reach together. */
export function rowOf(
  lengths: Lengths,
  items: readonly Item[],
  growth: Growth,
  gap: number,
): { x: number; y: number }[] {
  const first = items[0]!
  if (isAcross(growth)) {
    const row = new Row(lengths, gap)
    return items.map((item) => ({
      x: nearEdge(first, growth) - nearEdge(item, growth),
      y: addTo(row, item, growth) + first.height / 2 - item.height / 2,
    }))
  }
  if (growth === 'down' || growth === 'up') {
    const row = new Row(lengths, gap)
    return items.map((item) => ({
      x: addTo(row, item, growth) + first.width / 2 - item.width / 2,
      y: growth === 'down' ? first.top - item.top : first.bottom - item.bottom,
    }))
  }
  let bottom = first.top
  return items.map((item) => {
    const at = {
      x: nearEdge(first, growth) - nearEdge(item, growth),
      y: bottom - item.top,
    }
    bottom += item.bottom - item.top + gap
    return at
  })
}

/** An enclosure with its items inside, as one item with a frame around them. */
function framed(lengths: Lengths, enclosed: Enclosed, items: readonly Item[], growth: Growth, gap: number): Item {
  const first = items[0]!
  const row = rowOf(lengths, items, growth, gap)
  const inside = { left: first.left, top: first.top, right: first.right, bottom: first.bottom }
  items.forEach((item, i) => {
    const { x, y } = row[i]!
    inside.left = Math.min(inside.left, x + item.left)
    inside.top = Math.min(inside.top, y + item.top)
    inside.right = Math.max(inside.right, x + item.right)
    inside.bottom = Math.max(inside.bottom, y + item.bottom)
  })
  const toLeft = growth === 'left' || growth === 'indented-left'
  const [near, far] = [inside.left - SPACING.frame, inside.right + SPACING.frame]
  const frame: Reach = {
    // A title that is wider than what is inside reaches out at the far side.
    left: toLeft ? Math.min(near, far - enclosed.titleWidth) : near,
    top: inside.top - SPACING.frame - enclosed.title,
    right: toLeft ? far : Math.max(far, near + enclosed.titleWidth),
    bottom: inside.bottom + SPACING.frame,
  }
  const edges = items.map((item, i) => row[i]!.x + nearEdge(item, growth))
  const overhang = toLeft ? frame.right - Math.max(...edges) : Math.min(...edges) - frame.left
  return {
    ...frame,
    width: first.width,
    height: first.height,
    growth: null,
    contour: null,
    overhang,
    place(x, y, placed) {
      items.forEach((item, i) => {
        item.place(x + row[i]!.x, y + row[i]!.y, placed)
      })
      placed.frames.push({
        enclosure: enclosed.enclosure,
        left: x + frame.left,
        top: y + frame.top,
        right: x + frame.right,
        bottom: y + frame.bottom,
      })
    },
  }
}

/**
 * The children of a head as items of a row: neighbours in one enclosure become one item. `which` chooses the children
 * by index, in order; an enclosure counts as far as its children are chosen.
 */
export function itemsOf(
  { children, lengths }: Pick<Head, 'children' | 'lengths'>,
  which: readonly number[],
  enclosed: readonly Enclosed[],
  growth: Growth,
  gap: number,
): Item[] {
  if (enclosed.length === 0) return which.map((index) => new BranchItem(children[index]!, index))
  const items: Item[] = []
  for (let i = 0; i < which.length; ) {
    const index = which[i]!
    const around = enclosed.findIndex(({ from, to }) => from <= index && index <= to)
    const frame = enclosed[around]
    if (!frame) {
      items.push(new BranchItem(children[index]!, index))
      i++
      continue
    }
    let end = i
    while (end < which.length && which[end]! <= frame.to) end++
    const inner = itemsOf({ children, lengths }, which.slice(i, end), enclosed.slice(around + 1), growth, gap)
    items.push(framed(lengths, frame, inner, growth, gap))
    i = end
  }
  return items
}
