import type { Contour } from './contour'

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
  /** Upper left corner of each child's head, relative to that of this one: x at 2 i, y at 2 i + 1. */
  corners: readonly number[]
  frames: readonly Frame[]
  /** Set where the branch grows in one direction: what outlines mean, and who can share them. */
  growth: Growth | null
  contour: Contour | null
}

/** A head before its children are set. */
export interface Head<Content = unknown> {
  content: Content
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
  corners: number[],
  frames: readonly Frame[],
  growth: Growth | null,
  contour: Contour | null,
): Block<Content> {
  const { content, width, height, children } = head
  let left = 0
  let top = 0
  let right = width
  let bottom = height
  for (let i = 0; i < children.length; i++) {
    const child = children[i]!
    const x = corners[2 * i]!
    const y = corners[2 * i + 1]!
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
  return { content, width, height, children, corners, frames, growth, contour, left, top, right, bottom }
}
