/**
 * The contour of a branch on one side, as linked cells. A cell tells how far the branch reaches across the direction of
 * growth (`edge`), up to a certain distance along it (`far`), both in the frame of the cell; the step to the next cell
 * may shift the frame. Contours share their ends: that of a parent continues into that of a child. A cell never changes
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
 * Both contours of a branch. The origin is the middle of the near edge of its head, in the frame of its growth: `along`
 * away from the parent, `across` from the first sibling to the last.
 */
export interface Contour {
  readonly first: Cell
  readonly last: Cell
}

const cell = (far: number, edge: number): Cell => ({ far, edge, next: null, along: 0, across: 0 })

function link(from: Cell, next: Cell, along: number, across: number): void {
  from.next = next
  from.along = along
  from.across = across
}

/** The contour of a plain box: `length` along the growth, reaching from `-before` to `after` across it. */
export const boxContour = (length: number, before: number, after: number): Contour => ({
  first: cell(length, -before),
  last: cell(length, after),
})

interface Cursor {
  cell: Cell
  along: number
  across: number
}

/** Where the row's own part of its first contour ends, with the frame of that cell. */
type Tail = Cursor | null

/**
 * A row of branches set side by side, each as close to those before it as the contours allow, at least `gap` apart.
 *
 * Method: contours are compared along their common depth only, after Reingold and Tilford, "Tidier Drawings of Trees",
 * 1981, for boxes of any size as in van der Ploeg, "Drawing Non-layered Tidy Trees in Linear Time", 2014. Instead of
 * threads, which change the contours of children, cells are shared, and copied where two contours join; the copying is
 * bounded by the shallower of the two, so that a whole tree stays linear in its nodes.
 */
export class Row {
  /** Position of each branch across the growth, relative to the first. */
  readonly positions: number[] = []
  /** Shift from the frame of the first branch to that of the last, in which `last` begins. */
  lastShift = 0
  private firstCell: Cell | null = null
  private lastCell: Cell | null = null
  private tail: Tail = null

  constructor(private readonly gap: number) {}

  /** Where the contours of all branches together begin; a row without branches has none and throws a `RangeError`. */
  get first(): Cell {
    return this.cellOf(this.firstCell)
  }
  get last(): Cell {
    return this.cellOf(this.lastCell)
  }

  private cellOf(found: Cell | null): Cell {
    if (!found) throw new RangeError('A row needs at least one branch.')
    return found
  }

  add(branch: Contour): void {
    if (!this.lastCell) {
      this.begin(branch.first, branch.last)
      return
    }
    let above = this.lastCell
    let aboveAlong = 0
    let aboveAcross = this.lastShift
    let below = branch.first
    let belowAlong = 0
    let belowAcross = 0
    let position = Number.NEGATIVE_INFINITY
    while (true) {
      const needed = above.edge + aboveAcross + this.gap - below.edge - belowAcross
      if (needed > position) position = needed
      const aboveFar = above.far + aboveAlong
      const belowFar = below.far + belowAlong
      if (aboveFar <= belowFar && !above.next) {
        const rest = restOf({ cell: below, along: belowAlong, across: belowAcross + position }, belowFar > aboveFar)
        if (rest) this.extendFirst(rest)
        this.end(position, branch.last)
        return
      }
      if (belowFar <= aboveFar && !below.next) {
        const rest = restOf({ cell: above, along: aboveAlong, across: aboveAcross - position }, aboveFar > belowFar)
        this.end(position, rest ? extended(branch.last, rest) : branch.last)
        return
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

  /** The same as `add(boxContour(…))`, for the most frequent branch by far: a topic without children. */
  addBox(length: number, before: number, after: number): void {
    const last = cell(length, after)
    if (!this.lastCell) {
      this.begin(cell(length, -before), last)
      return
    }
    let above = this.lastCell
    let along = 0
    let across = this.lastShift
    let reach = above.edge + across
    while (above.far + along < length && above.next) {
      along += above.along
      across += above.across
      above = above.next
      if (above.edge + across > reach) reach = above.edge + across
    }
    const position = reach + this.gap + before
    const far = above.far + along
    if (far < length) this.extendFirst({ cell: cell(length, -before), along: 0, across: position })
    else {
      const rest = restOf({ cell: above, along, across: across - position }, far > length)
      if (rest) link(last, rest.cell, rest.along, rest.across)
    }
    this.end(position, last)
  }

  private begin(first: Cell, last: Cell): void {
    this.firstCell = first
    this.end(0, last)
  }

  private end(position: number, last: Cell): void {
    this.positions.push(position)
    this.lastCell = last
    this.lastShift = position
  }

  /**
   * Continues the first contour with the rest of a deeper branch. The row's own copy ends at `tail`; what follows there
   * is borrowed from the deepest branch so far and copied now, because its end is linked on.
   */
  private extendFirst(rest: Cursor): void {
    const { tail } = this
    const from: Cursor = tail
      ? { cell: tail.cell.next!, along: tail.along + tail.cell.along, across: tail.across + tail.cell.across }
      : { cell: this.first, along: 0, across: 0 }
    const copied = copyChain(from)
    if (tail) tail.cell.next = copied.head
    else this.firstCell = copied.head
    link(copied.end.cell, rest.cell, rest.along - copied.end.along, rest.across - copied.end.across)
    this.tail = copied.end
  }
}

/** What is left of a longer contour where a shorter one ends: from this cell on, or from the next one. */
function restOf(at: Cursor, fromThis: boolean): Cursor | null {
  if (fromThis) return at
  const { next, along, across } = at.cell
  return next && { cell: next, along: at.along + along, across: at.across + across }
}

/** The last contour of a branch, continued with the rest of a deeper row before it. */
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

/** The contour of a head with its row of children, `gap` away from it and centred so that it stands at `middle`. */
export function contourAbove(length: number, half: number, gap: number, row: Row, middle: number): Contour {
  const first = cell(length, -half)
  const last = cell(length, half)
  link(first, row.first, length + gap, -middle)
  link(last, row.last, length + gap, row.lastShift - middle)
  return { first, last }
}
