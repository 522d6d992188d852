import type { LayoutKind } from '../records/layout'
import { hangs, isRoot, parentOf, type Side, sideOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'

/** Whether a layout shares the children of a topic out to two sides. */
export const sharesOut = (layout: LayoutKind | null): boolean => layout === 'both' || layout === 'around'

/**
 * Whether the children of a topic have sides. Those of a root always do, also while its map is set in another way, so that
 * they are where they were when it is set to both sides again.
 */
export const hasSides = (topic: TopicRecord): boolean => isRoot(topic) || sharesOut(topic.layout)

/** The layout in which the children of a topic are set: its own, or that of what is around it. O(levels). */
export function layoutBelow(records: Records, topic: TopicRecord): LayoutKind {
  for (let at: TopicRecord | undefined = topic; at; at = records.get('topic', parentOf(at)))
    if (at.layout) return at.layout
  return records.get('map', topic.place.map)?.layout ?? 'both'
}

/** Whether the children of a topic are seen on two sides, as it is set now. */
export const showsSides = (records: Records, topic: TopicRecord): boolean =>
  hasSides(topic) && sharesOut(layoutBelow(records, topic))

/** Rows that a branch fills: one for each topic that shows nothing below it. */
export function rowsOf(records: Records, head: TopicRecord): number {
  let count = 0
  const waiting = [head]
  for (let topic = waiting.pop(); topic; topic = waiting.pop()) {
    const children = topic.folded ? [] : records.children(topic.id)
    if (children.length === 0) count++
    else for (const child of children) waiting.push(child)
  }
  return count
}

function rowsOnSides(records: Records, root: TopicRecord, leaving: ReadonlySet<string>): Record<Side, number> {
  const total = { left: 0, right: 0 }
  for (const child of records.children(root.id))
    if (!leaving.has(child.id)) total[sideOf(child) ?? 'right'] += rowsOf(records, child)
  return total
}

/** How many rows one side may be ahead before a new branch goes to the other. */
const ROWS_AHEAD = 2

/**
 * The sides for branches that are hung on a topic one after the other, given the rows that each fills: where nothing else
 * hangs on it as `evenSides` shares them out, else beside the neighbour as long as the sides stay about even, and on the
 * lighter side otherwise. Nothing that already stands is moved. What is in `leaving` counts as not there.
 */
export function sidesForNew(
  records: Records,
  parent: TopicRecord,
  neighbour: TopicRecord | undefined,
  weights: readonly number[],
  leaving: ReadonlySet<string> = new Set(),
): Side[] {
  const total = rowsOnSides(records, parent, leaving)
  if (total.left + total.right === 0 && weights.length > 1) return evenSides(weights)
  let beside = neighbour ? sideOf(neighbour) : null
  return weights.map((rows) => {
    const preferred = beside ?? (total.right <= total.left ? 'right' : 'left')
    const other = preferred === 'right' ? 'left' : 'right'
    const side = total[preferred] > total[other] + ROWS_AHEAD ? other : preferred
    total[side] += rows
    beside = side
    return side
  })
}

/**
 * Sides for a row of first-level branches, given the rows that each fills: the first ones right, the rest left, cut
 * where the two are most even, so that reading order runs down the right side and then down the left. What is held to a
 * side stays there and counts. Linear.
 */
export function evenSides(weights: readonly number[], held: readonly (Side | null)[] = []): Side[] {
  /** How much heavier the right side is: with the cut before the first branch that is not held, everything is left. */
  let ahead = weights.reduce((sum, weight, i) => sum + (held[i] === 'right' ? weight : -weight), 0)
  const total = weights.reduce((sum, weight) => sum + weight, 0)
  const nothingHeld = !held.some(Boolean)
  let best = weights.length
  let least = nothingHeld ? total : Number.POSITIVE_INFINITY
  weights.forEach((weight, i) => {
    if (!held[i]) ahead += 2 * weight
    // Ties go to the first cut; without anything held, to one that leaves anything on the right.
    if (Math.abs(ahead) >= least) return
    least = Math.abs(ahead)
    best = i + 1
  })
  return weights.map((_, i) => held[i] ?? (i < best ? 'right' : 'left'))
}

/** How much heavier one side may be before branches change sides by themselves: by a factor and by rows. */
const LOPSIDED = { times: 2, rows: 6 }

const NOTHING: ReadonlySet<string> = new Set()

/** Whether the sides of a root are so uneven that they should be evened out. */
export function isLopsided(records: Records, root: TopicRecord): boolean {
  const { left, right } = rowsOnSides(records, root, NOTHING)
  return Math.max(left, right) > LOPSIDED.times * Math.min(left, right) + LOPSIDED.rows
}

/** Sides for branches as they stand, those that are held to a side on it. */
export function evenSidesOf(records: Records, branches: readonly TopicRecord[]): Side[] {
  return evenSides(
    branches.map((branch) => rowsOf(records, branch)),
    branches.map((branch) => (branch.held && hangs(branch.place) ? branch.place.side : null)),
  )
}
