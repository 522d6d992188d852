import type { Contour } from './contour'
import { END, type Lengths } from './lengths'

/**
 * Where children appear, seen from their parent. Indented children stand below it, to the right or, mirrored, left; or
 * above it, to the right.
 */
export type Growth = 'right' | 'left' | 'down' | 'up' | 'indented' | 'indented-left' | 'indented-up'

/** The frame of an enclosure, relative to the upper left corner of the head it was set with. Lengths in px. */
export interface Frame {
  enclosure: string
  left: number
  top: number
  right: number
  bottom: number
}

/** How far something reaches, relative to the upper left corner of its head. Lengths in px. */
export interface Reach {
  readonly left: number
  top: number
  readonly right: number
  readonly bottom: number
}

/**
 * A branch that has been set: the box of its head, its children, and where they stand. A value: it is kept as long as
 * nothing in the branch changes, and set again elsewhere as it is. Lengths in px.
 */
export interface Block<Content = unknown> extends Reach {
  content: Content
  width: number
  height: number
  children: readonly Block<Content>[]
  /** Where in its `Lengths` the corners of the children's heads begin: x and y in turn, relative to that of this one. */
  corners: number
  frames: readonly Frame[]
  /** Set where the branch grows in one direction: what contours mean, and who can share them. */
  growth: Growth | null
  contour: Contour | null
}

const NONE: never[] = []

/** A head without children: the most frequent block by far. */
export class Leaf<Content> implements Block<Content> {
  private readonly at: number

  constructor(
    readonly content: Content,
    private readonly lengths: Lengths,
    width: number,
    height: number,
  ) {
    this.at = lengths.reserve(3)
    const { numbers } = lengths
    numbers[this.at] = width
    numbers[this.at + 1] = height
    numbers[this.at + 2] = 0
  }

  get width(): number {
    return this.lengths.numbers[this.at]!
  }
  get height(): number {
    return this.lengths.numbers[this.at + 1]!
  }
  get left(): number {
    return 0
  }
  get top(): number {
    return this.lengths.numbers[this.at + 2]!
  }
  set top(top: number) {
    this.lengths.numbers[this.at + 2] = top
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
  get corners(): number {
    return 0
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

/** A head with its children, and its own contour where it has one. */
class SetBranch<Content> implements Block<Content>, Contour {
  constructor(
    readonly content: Content,
    private readonly lengths: Lengths,
    /** Where width, height, left, top, right and bottom stand. */
    private readonly at: number,
    readonly children: readonly Block<Content>[],
    readonly corners: number,
    readonly frames: readonly Frame[],
    readonly growth: Growth | null,
    readonly first: number,
    readonly last: number,
  ) {}

  get contour(): Contour | null {
    return this.first === END ? null : this
  }
  get width(): number {
    return this.lengths.numbers[this.at]!
  }
  get height(): number {
    return this.lengths.numbers[this.at + 1]!
  }
  get left(): number {
    return this.lengths.numbers[this.at + 2]!
  }
  get top(): number {
    return this.lengths.numbers[this.at + 3]!
  }
  set top(top: number) {
    this.lengths.numbers[this.at + 3] = top
  }
  get right(): number {
    return this.lengths.numbers[this.at + 4]!
  }
  get bottom(): number {
    return this.lengths.numbers[this.at + 5]!
  }
}

/** A head before its children are set. */
export interface Head<Content = unknown> {
  content: Content
  lengths: Lengths
  width: number
  height: number
  children: readonly Block<Content>[]
  /** Enclosures around neighbouring children, outer ones before those inside them. */
  enclosed: readonly Enclosed[]
}

/** An enclosure around the children from `from` to `to` (inclusive). */
export interface Enclosed {
  enclosure: string
  from: number
  to: number
  /** Size of its title in px; 0 without one. */
  title: number
  titleWidth: number
}

/** Space between boxes in px, before the map's own spacing is applied. */
export const SPACING = {
  /** From a box to its children, in the direction of growth. */
  level: 32,
  /** Between neighbouring branches below the root, at the first level, and deeper. */
  siblings: [18, 9, 5],
  /** The same where branches stand side by side. */
  columns: [28, 20, 14],
  indent: 24,
  /** Between an enclosure's frame and what is inside. */
  frame: 10,
} as const

/** The block of a head whose children have their corners: computes how far all of it reaches. */
export function blockOf<Content>(
  head: Head<Content>,
  corners: number,
  frames: readonly Frame[],
  growth: Growth | null,
  contour: Contour | null,
): Block<Content> {
  const { content, width, height, children, lengths } = head
  const at = lengths.reserve(6)
  const { numbers } = lengths
  let left = 0
  let top = 0
  let right = width
  let bottom = height
  for (let i = 0; i < children.length; i++) {
    const child = children[i]!
    const x = numbers[corners + 2 * i]!
    const y = numbers[corners + 2 * i + 1]!
    if (x + child.left < left) left = x + child.left
    if (y + child.top < top) top = y + child.top
    if (x + child.right > right) right = x + child.right
    if (y + child.bottom > bottom) bottom = y + child.bottom
  }
  for (const frame of frames) {
    left = Math.min(left, frame.left)
    top = Math.min(top, frame.top)
    right = Math.max(right, frame.right)
    bottom = Math.max(bottom, frame.bottom)
  }
  numbers[at] = width
  numbers[at + 1] = height
  numbers[at + 2] = left
  numbers[at + 3] = top
  numbers[at + 4] = right
  numbers[at + 5] = bottom
  const { first, last } = contour ?? { first: END, last: END }
  return new SetBranch(content, lengths, at, children, corners, frames, growth, first, last)
}
