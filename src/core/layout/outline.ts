/**
 * The outline of a branch on one side, as linked cells. A cell tells how far the branch reaches across the direction of
 * growth (`edge`), up to a certain distance along it (`far`), both in the frame of the cell; the step to the next cell
 * may shift the frame. Outlines share their ends: that of a parent continues into that of a child. A cell never changes
 * once its branch is laid out, so that branches can be kept and set again elsewhere.
 */
export interface Cell {
  far: number
  edge: number
  next: Cell | null
  /** Shift from the frame of this cell to the frame of the next one. */
  along: number
  across: number
}

/**
 * Both outlines of a branch. The origin is the middle of the near edge of its head, in the frame of its growth: `along`
 * away from the parent, `across` from the first sibling to the last.
 */
export interface Outline {
  first: Cell
  last: Cell
}

const cell = (far: number, edge: number): Cell => ({ far, edge, next: null, along: 0, across: 0 })

function link(from: Cell, next: Cell, along: number, across: number): void {
  from.next = next
  from.along = along
  from.across = across
}

/** The outline of a plain box: `length` along the growth, reaching from `-before` to `after` across it. */
export const boxOutline = (length: number, before: number, after: number): Outline => ({
  first: cell(length, -before),
  last: cell(length, after),
})

/** What `setRow` finds: where each branch stands across the growth, and the outline of all of them together. */
export interface Row {
  /** Position of each branch relative to the first. */
  positions: number[]
  outline: Outline
  /** Shift from the frame of the first branch to that of the last, in which `outline.last` begins. */
  lastShift: number
}

interface Cursor {
  cell: Cell
  along: number
  across: number
}

/** Where the row's own part of its first outline ends, with the frame of that cell. */
type Tail = Cursor | null

/**
 * Sets branches side by side, each as close to those before it as the outlines allow, at least `gap` apart.
 *
 * Method: outlines are compared along their common depth only, after Reingold and Tilford, "Tidier Drawings of Trees",
 * 1981, for boxes of any size as in van der Ploeg, "Drawing Non-layered Tidy Trees in Linear Time", 2014. Instead of
 * threads, which change the outlines of children, cells are shared, and copied where two outlines join; the copying is
 * bounded by the shallower of the two, so that a whole tree stays linear in its nodes.
 */
export function setRow(outlines: readonly Outline[], gap: number): Row {
  const [head] = outlines
  if (!head) throw new RangeError('A row needs at least one branch.')
  const positions = new Array<number>(outlines.length).fill(0)
  const row = { positions, outline: { ...head }, lastShift: 0 }
  let tail: Tail = null
  for (let i = 1; i < outlines.length; i++) tail = append(row, tail, outlines[i]!, gap, i)
  return row
}

function append(row: Row, tail: Tail, branch: Outline, gap: number, index: number): Tail {
  let above = row.outline.last
  let aboveAlong = 0
  let aboveAcross = row.lastShift
  let below = branch.first
  let belowAlong = 0
  let belowAcross = 0
  let position = Number.NEGATIVE_INFINITY
  while (true) {
    const needed = above.edge + aboveAcross + gap - below.edge - belowAcross
    if (needed > position) position = needed
    const aboveFar = above.far + aboveAlong
    const belowFar = below.far + belowAlong
    const aboveEnds = aboveFar <= belowFar && !above.next
    const belowEnds = belowFar <= aboveFar && !below.next
    if (aboveEnds || belowEnds) {
      row.positions[index] = position
      row.outline.last = branch.last
      row.lastShift = position
      if (aboveEnds) {
        const rest = restOf({ cell: below, along: belowAlong, across: belowAcross + position }, belowFar > aboveFar)
        return rest ? extendFirst(row, tail, rest) : tail
      }
      const rest = restOf({ cell: above, along: aboveAlong, across: aboveAcross - position }, aboveFar > belowFar)
      if (rest) row.outline.last = extended(branch.last, rest)
      return tail
    }
    if (aboveFar <= belowFar) {
      aboveAlong += above.along
      aboveAcross += above.across
      above = above.next!
    }
    if (belowFar <= aboveFar) {
      belowAlong += below.along
      belowAcross += below.across
      below = below.next!
    }
  }
}

/** What is left of a longer outline where a shorter one ends: from this cell on, or from the next one. */
function restOf(at: Cursor, fromThis: boolean): Cursor | null {
  if (fromThis) return at
  const { next, along, across } = at.cell
  return next && { cell: next, along: at.along + along, across: at.across + across }
}

/**
 * Continues the first outline of the row with the rest of a deeper branch. The row's own copy ends at `tail`; what
 * follows there is borrowed from the deepest branch so far and copied now, because its end is linked on.
 */
function extendFirst(row: Row, tail: Tail, rest: Cursor): Cursor {
  const from: Cursor = tail
    ? { cell: tail.cell.next!, along: tail.along + tail.cell.along, across: tail.across + tail.cell.across }
    : { cell: row.outline.first, along: 0, across: 0 }
  const copied = copyChain(from)
  if (tail) tail.cell.next = copied.head
  else row.outline.first = copied.head
  link(copied.end.cell, rest.cell, rest.along - copied.end.along, rest.across - copied.end.across)
  return copied.end
}

/** The last outline of a branch, continued with the rest of a deeper row before it. */
function extended(last: Cell, rest: Cursor): Cell {
  const copied = copyChain({ cell: last, along: 0, across: 0 })
  link(copied.end.cell, rest.cell, rest.along - copied.end.along, rest.across - copied.end.across)
  return copied.head
}

function copyChain(from: Cursor): { head: Cell; end: Cursor } {
  const head = cell(from.cell.far, from.cell.edge)
  const end: Cursor = { cell: head, along: from.along, across: from.across }
  for (let at = from.cell; at.next; at = at.next) {
    const copy = cell(at.next.far, at.next.edge)
    link(end.cell, copy, at.along, at.across)
    end.along += at.along
    end.across += at.across
    end.cell = copy
  }
  return { head, end }
}

/** The outline of a head with its row of children, `gap` away from it and centred so that it stands at `middle`. */
export function outlineAbove(length: number, half: number, gap: number, row: Row, middle: number): Outline {
  const outline = boxOutline(length, half, half)
  link(outline.first, row.outline.first, length + gap, -middle)
  link(outline.last, row.outline.last, length + gap, row.lastShift - middle)
  return outline
}
