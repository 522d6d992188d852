import { Contours } from './contours'
import { type BoxTree, type Positions, SPACING, type Spacing } from './tree'

/** Branches that have been set one below the other, as seen from outside. Positions are relative to the first one. */
interface Row {
  /** First cell of the upper outline. */
  top: number
  /** First cell of the lower outline, and the shift to its frame across the direction of growth. */
  bottom: number
  bottomShift: number
  /** Position of the last branch. */
  last: number
}

/**
 * Lays out a tree to both sides of its root so that no two boxes overlap and branches nestle into one another's gaps.
 *
 * Method: contours of subtrees are compared along their common depth only, after Reingold and Tilford, "Tidier
 * Drawings of Trees", 1981, for boxes of any size as in van der Ploeg, "Drawing Non-layered Tidy Trees in Linear
 * Time", 2014. Instead of threads, which change the outlines of children, cells are shared and copied where two
 * outlines join; the copying is bounded by the shallower of the two, so that the whole stays linear in the nodes.
 */
export function layoutBothSides(tree: BoxTree, spacing: Spacing = SPACING): Positions {
  const solver = new Solver(tree, spacing)
  for (let node = tree.count - 1; node > 0; node--) solver.settle(node)
  return solver.place()
}

class Solver {
  private readonly cells: Contours
  /** Outline cells of each branch; the frame has its origin at the middle of the near edge of its head. */
  private readonly top: Int32Array
  private readonly bottom: Int32Array
  /** Position across the direction of growth, relative to the parent's middle. */
  private readonly across: Float64Array
  private readonly level: Uint8Array

  constructor(
    private readonly tree: BoxTree,
    private readonly spacing: Spacing,
  ) {
    const { count, parent } = tree
    this.cells = new Contours(count * 3 + 16)
    this.top = new Int32Array(count)
    this.bottom = new Int32Array(count)
    this.across = new Float64Array(count)
    this.level = new Uint8Array(count)
    for (let node = 1; node < count; node++) this.level[node] = Math.min(this.level[parent[node]!]! + 1, 2)
  }

  /** Sets the children of a node and computes the outline of its branch. Its children must be settled. */
  settle(node: number): void {
    const { cells, tree } = this
    const width = tree.width[node]!
    const half = tree.height[node]! / 2
    const top = cells.add(width, -half)
    const bottom = cells.add(width, half)
    this.top[node] = top
    this.bottom[node] = bottom
    const first = tree.first[node]!
    if (first < 0) return
    const row = this.setRow(node, first, -1)
    const middle = row.last / 2
    for (let child = first; child >= 0; child = tree.next[child]!) this.across[child]! -= middle
    const along = width + this.spacing.level
    cells.link(top, row.top, along, -middle)
    cells.link(bottom, row.bottom, along, row.bottomShift - middle)
  }

  /** Sets the children one below the other; `left` 0 or 1 takes those on one side of the root only. */
  private setRow(parent: number, from: number, left: number): Row {
    const { tree } = this
    const gap = this.spacing.siblings[Math.min(this.level[parent]!, 2)]!
    const row: Row = { top: this.top[from]!, bottom: this.bottom[from]!, bottomShift: 0, last: 0 }
    const end: TopEnd = { own: -1, along: 0, across: 0 }
    this.across[from] = 0
    for (let child = tree.next[from]!; child >= 0; child = tree.next[child]!)
      if (left < 0 || tree.left[child] === left) this.append(row, end, child, gap)
    return row
  }

  /** Pushes a branch as close below the row as its outline allows and joins the outlines. */
  private append(row: Row, end: TopEnd, child: number, gap: number): void {
    const { far, edge, next, alongShift, acrossShift } = this.cells
    let above = row.bottom
    let aboveAlong = 0
    let aboveAcross = row.bottomShift
    let below = this.top[child]!
    let belowAlong = 0
    let belowAcross = 0
    let position = Number.NEGATIVE_INFINITY
    while (true) {
      const needed = edge[above]! + aboveAcross + gap - edge[below]! - belowAcross
      if (needed > position) position = needed
      const aboveFar = far[above]! + aboveAlong
      const belowFar = far[below]! + belowAlong
      const aboveEnds = aboveFar <= belowFar && next[above]! < 0
      const belowEnds = belowFar <= aboveFar && next[below]! < 0
      if (aboveEnds || belowEnds) {
        this.across[child] = position
        row.last = position
        const aboveGoesOn = aboveFar > belowFar || next[above]! >= 0
        const belowGoesOn = belowFar > aboveFar || next[below]! >= 0
        row.bottom = this.bottom[child]!
        if (aboveEnds && belowGoesOn) {
          const rest = this.rest({ cell: below, along: belowAlong, across: belowAcross }, belowFar > aboveFar)
          this.extendTop(row, end, { ...rest, across: rest.across + position })
        } else if (belowEnds && aboveGoesOn) {
          const rest = this.rest({ cell: above, along: aboveAlong, across: aboveAcross }, aboveFar > belowFar)
          row.bottom = this.extendBottom(child, { ...rest, across: rest.across - position })
        }
        row.bottomShift = position
        return
      }
      if (aboveFar <= belowFar) {
        aboveAlong += alongShift[above]!
        aboveAcross += acrossShift[above]!
        above = next[above]!
      }
      if (belowFar <= aboveFar) {
        belowAlong += alongShift[below]!
        belowAcross += acrossShift[below]!
        below = next[below]!
      }
    }
  }

  /** What is left of a longer outline where a shorter one ends: from this cell on, or from the next one. */
  private rest(at: Cursor, fromThis: boolean): Cursor {
    if (fromThis) return at
    const { next, alongShift, acrossShift } = this.cells
    return {
      cell: next[at.cell]!,
      along: at.along + alongShift[at.cell]!,
      across: at.across + acrossShift[at.cell]!,
    }
  }

  /**
   * Continues the upper outline of the row with the rest of a deeper branch. The row's own copy ends at `end.own`;
   * what follows there is borrowed from the deepest branch so far and copied now, because its end is linked on.
   */
  private extendTop(row: Row, end: TopEnd, rest: Cursor): void {
    const { cells } = this
    if (end.own < 0) {
      const copied = this.copyChain(row.top, 0, 0)
      row.top = copied.head
      end.own = copied.tail
      end.along = copied.along
      end.across = copied.across
    } else {
      const borrowed = cells.next[end.own]!
      const along = end.along + cells.alongShift[end.own]!
      const across = end.across + cells.acrossShift[end.own]!
      const copied = this.copyChain(borrowed, along, across)
      cells.next[end.own] = copied.head
      end.own = copied.tail
      end.along = copied.along
      end.across = copied.across
    }
    cells.link(end.own, rest.cell, rest.along - end.along, rest.across - end.across)
  }

  /** The lower outline of a branch, continued with the rest of a deeper row above it. */
  private extendBottom(child: number, rest: Cursor): number {
    const copied = this.copyChain(this.bottom[child]!, 0, 0)
    this.cells.link(copied.tail, rest.cell, rest.along - copied.along, rest.across - copied.across)
    return copied.head
  }

  private copyChain(
    from: number,
    along: number,
    across: number,
  ): { head: number; tail: number; along: number; across: number } {
    const { cells } = this
    const head = cells.add(cells.far[from]!, cells.edge[from]!)
    let tail = head
    let cell = from
    let frameAlong = along
    let frameAcross = across
    while (cells.next[cell]! >= 0) {
      const next = cells.next[cell]!
      const copy = cells.add(cells.far[next]!, cells.edge[next]!)
      cells.link(tail, copy, cells.alongShift[cell]!, cells.acrossShift[cell]!)
      frameAlong += cells.alongShift[cell]!
      frameAcross += cells.acrossShift[cell]!
      tail = copy
      cell = next
    }
    return { head, tail, along: frameAlong, across: frameAcross }
  }

  /** Sets the two rows at the root and turns relative positions into absolute ones. */
  place(): Positions {
    const { tree, across, spacing } = this
    const { count, parent, width, height } = tree
    const x = new Float64Array(count)
    const y = new Float64Array(count)
    if (count === 0) return { x, y }
    const leftward = new Uint8Array(count)
    for (const left of [0, 1]) {
      let first = tree.first[0]!
      while (first >= 0 && tree.left[first] !== left) first = tree.next[first]!
      if (first < 0) continue
      const middle = this.setRow(0, first, left).last / 2
      for (let child = first; child >= 0; child = tree.next[child]!)
        if (tree.left[child] === left) across[child]! -= middle
    }
    x[0] = -width[0]! / 2
    y[0] = -height[0]! / 2
    for (let node = 1; node < count; node++) {
      const above = parent[node]!
      const left = above === 0 ? tree.left[node]! : leftward[above]!
      leftward[node] = left
      x[node] = left ? x[above]! - spacing.level - width[node]! : x[above]! + width[above]! + spacing.level
      y[node] = y[above]! + height[above]! / 2 + across[node]! - height[node]! / 2
    }
    return { x, y }
  }
}

interface Cursor {
  cell: number
  along: number
  across: number
}

/** Where the row's own part of its upper outline ends, with the frame of that cell. */
interface TopEnd {
  own: number
  along: number
  across: number
}
