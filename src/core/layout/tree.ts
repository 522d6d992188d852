/**
 * A tree of boxes in the form that layout works on. Nodes are numbered in reading order (a parent before its children,
 * siblings in order), so that a loop from the end sees children before parents.
 */
export interface BoxTree {
  count: number
  /** Index of the parent; -1 at node 0, the only root. */
  parent: Int32Array
  /** Index of the next sibling; -1 at the last. */
  next: Int32Array
  /** Index of the first child; -1 where there is none. */
  first: Int32Array
  /** Sizes in px. */
  width: Float64Array
  height: Float64Array
  /** 1 where a first-level branch grows to the left. Only read at children of the root. */
  left: Uint8Array
}

/** An empty tree for `count` nodes, to be filled in reading order. */
export function boxTree(count: number): BoxTree {
  return {
    count,
    parent: new Int32Array(count).fill(-1),
    next: new Int32Array(count).fill(-1),
    first: new Int32Array(count).fill(-1),
    width: new Float64Array(count),
    height: new Float64Array(count),
    left: new Uint8Array(count),
  }
}

/** Space between boxes in px. */
export interface Spacing {
  /** From a box to its children, in the direction of growth. */
  level: number
  /** Between neighbouring branches below the root, at the first level, and deeper. */
  siblings: readonly [number, number, number]
}

export const SPACING: Spacing = { level: 32, siblings: [18, 9, 5] }

/** Positions of the upper left corners, in px. The middle of the root is at 0, 0. */
export interface Positions {
  x: Float64Array
  y: Float64Array
}
