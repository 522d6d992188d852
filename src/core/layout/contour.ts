import { END, type Lengths } from './lengths'

/**
 * Both contours of a branch, as the cells with which they begin; see `Lengths`. The origin is the middle of the near edge
 * of its head, in the frame of its growth: `along` away from the parent, `across` from the first sibling to the last.
 * Contours share their ends: that of a parent continues into that of a child. A cell never changes once its branch is laid
 * out, so that branches can be kept and set again elsewhere.
 */
export interface Contour {
  readonly first: number
  readonly last: number
}

/** The contour of a plain box: `length` along the growth, reaching from `-before` to `after` across it. */
export const boxContour = (lengths: Lengths, length: number, before: number, after: number): Contour => ({
  first: lengths.cell(length, -before),
  last: lengths.cell(length, after),
})

/** A place on a contour: a cell with its frame. */
interface Cursor {
  cell: number
  along: number
  across: number
}

/**
 * A row of branches set side by side, each as close to those before it as the contours allow, at least `gap` apart.
 *
 * Method: contours are compared along their common depth only, after Reingold and Tilford, "Tidier Drawings of Trees",
 * 1981, for boxes of any size as in van der Ploeg, "Drawing Non-layered Tidy Trees in Linear Time", 2014. Instead of
 * threads, which change the contours of children, cells are shared, and copied where two contours join; the copying is
 * bounded by the shallower of the two, so that a whole tree stays linear in its nodes.
 */
export class Row {
  /** Position of the last branch across the growth, relative to the first: the frame in which `last` begins. */
  lastShift = 0
  private firstCell = END
  private lastCell = END
  /** Where the row's own part of its first contour ends, with the frame of that cell. */
  private tail: Cursor | null = null

  constructor(
    private readonly lengths: Lengths,
    private readonly gap: number,
  ) {}

  /** Where the contours of all branches together begin; a row without branches has none and throws a `RangeError`. */
  get first(): number {
    return this.cellOf(this.firstCell)
  }
  get last(): number {
    return this.cellOf(this.lastCell)
  }

  private cellOf(found: number): number {
    if (found === END) throw new RangeError('A row needs at least one branch.')
    return found
  }

  /** Adds a branch and tells its position across the growth, relative to the first. */
  add(branch: Contour): number {
    if (this.lastCell === END) return this.begin(branch.first, branch.last)
    const { far, edge, next, along, across } = this.lengths
    let above = this.lastCell
    let aboveAlong = 0
    let aboveAcross = this.lastShift
    let below = branch.first
    let belowAlong = 0
    let belowAcross = 0
    let position = Number.NEGATIVE_INFINITY
    while (true) {
      const needed = edge[above]! + aboveAcross + this.gap - edge[below]! - belowAcross
      if (needed > position) position = needed
      const aboveFar = far[above]! + aboveAlong
      const belowFar = far[below]! + belowAlong
      if (aboveFar <= belowFar && next[above] === END) {
        const rest = this.restOf(below, belowAlong, belowAcross + position, belowFar > aboveFar)
        if (rest) this.extendFirst(rest)
        return this.end(position, branch.last)
      }
      if (belowFar <= aboveFar && next[below] === END) {
        const rest = this.restOf(above, aboveAlong, aboveAcross - position, aboveFar > belowFar)
        return this.end(position, rest ? this.extended(branch.last, rest) : branch.last)
      }
      if (aboveFar <= belowFar) {
        aboveAlong += along[above]!
        aboveAcross += across[above]!
        above = next[above]!
      }
      if (belowFar <= aboveFar) {
        belowAlong += along[below]!
        belowAcross += across[below]!
        below = next[below]!
      }
    }
  }

  /** The same as `add(boxContour(…))`, for the most frequent branch by far: a topic without children. */
  addBox(length: number, before: number, after: number): number {
    const { lengths } = this
    const last = lengths.cell(length, after)
    if (this.lastCell === END) return this.begin(lengths.cell(length, -before), last)
    const { far, edge, next } = lengths
    let above = this.lastCell
    let along = 0
    let across = this.lastShift
    let reach = edge[above]! + across
    while (far[above]! + along < length && next[above] !== END) {
      along += lengths.along[above]!
      across += lengths.across[above]!
      above = next[above]!
      if (edge[above]! + across > reach) reach = edge[above]! + across
    }
    const position = reach + this.gap + before
    const reaches = far[above]! + along
    if (reaches < length) this.extendFirst({ cell: lengths.cell(length, -before), along: 0, across: position })
    else {
      const rest = this.restOf(above, along, across - position, reaches > length)
      if (rest) lengths.link(last, rest.cell, rest.along, rest.across)
    }
    return this.end(position, last)
  }

  private begin(first: number, last: number): number {
    this.firstCell = first
    return this.end(0, last)
  }

  private end(position: number, last: number): number {
    this.lastCell = last
    this.lastShift = position
    return position
  }

  /**
   * Continues the first contour with the rest of a deeper branch. The row's own copy ends at `tail`; what follows there
   * is borrowed from the deepest branch so far and copied now, because its end is linked on.
   */
  private extendFirst(rest: Cursor): void {
    const { tail, lengths } = this
    const from = tail ? this.after(tail.cell, tail.along, tail.across)! : { cell: this.first, along: 0, across: 0 }
    const copied = this.copyChain(from)
    if (tail) lengths.next[tail.cell] = copied.head
    else this.firstCell = copied.head
    this.continueWith(copied.end, rest)
    this.tail = copied.end
  }

  /** The last contour of a branch, continued with the rest of a deeper row before it. */
  private extended(last: number, rest: Cursor): number {
    const copied = this.copyChain({ cell: last, along: 0, across: 0 })
    this.continueWith(copied.end, rest)
    return copied.head
  }

  private continueWith(end: Cursor, rest: Cursor): void {
    this.lengths.link(end.cell, rest.cell, rest.along - end.along, rest.across - end.across)
  }

  /** What is left of a longer contour where a shorter one ends: from this cell on, or from the next one. */
  private restOf(cell: number, along: number, across: number, fromThis: boolean): Cursor | null {
    return fromThis ? { cell, along, across } : this.after(cell, along, across)
  }

  private after(cell: number, along: number, across: number): Cursor | null {
    const { lengths } = this
    const next = lengths.next[cell]!
    if (next === END) return null
    return { cell: next, along: along + lengths.along[cell]!, across: across + lengths.across[cell]! }
  }

  private copyChain(from: Cursor): { head: number; end: Cursor } {
    const { lengths } = this
    const head = lengths.copyOf(from.cell)
    const end: Cursor = { cell: head, along: from.along, across: from.across }
    for (let at = from.cell; lengths.next[at] !== END; at = lengths.next[at]!) {
      const copy = lengths.copyOf(lengths.next[at]!)
      const [along, across] = [lengths.along[at]!, lengths.across[at]!]
      lengths.link(end.cell, copy, along, across)
      end.along += along
      end.across += across
      end.cell = copy
    }
    return { head, end }
  }
}

/** The contour of a head with its row of children, `gap` away from it and centred on it. */
export function contourAbove(lengths: Lengths, length: number, half: number, gap: number, row: Row): Contour {
  const middle = row.lastShift / 2
  const first = lengths.cell(length, -half)
  const last = lengths.cell(length, half)
  lengths.link(first, row.first, length + gap, -middle)
  lengths.link(last, row.last, length + gap, row.lastShift - middle)
  return { first, last }
}
