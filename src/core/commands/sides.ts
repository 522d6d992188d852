import type { LayoutKind } from '../records/layout'
import { isPlacedByHand, isRoot, parentOf, type Side, sideOf } from '../records/place'
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

/** Whether topics below a root show numbers: then they are read down the right side and then down the left. */
const readsInOrder = (records: Records, root: TopicRecord): boolean =>
  isRoot(root) ? Boolean(records.get('map', root.place.map)?.numbering) : root.numbering !== null

function rowsOnSides(records: Records, root: TopicRecord, leaving: ReadonlySet<string>): Record<Side, number> {
  const total = { left: 0, right: 0 }
  for (const child of records.children(root.id))
    if (!leaving.has(child.id)) total[sideOf(child) ?? 'right'] += rowsOf(records, child)
  return total
}

/** How many rows one side may be ahead before a new branch goes to the other. */
const ROWS_AHEAD = 1

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
  if (total.left + total.right === 0 && weights.length > 1) {
    const cut = evenSides(weights)
    const branches = weights.map((rows, i) => ({ rows, side: cut[i]!, held: false }))
    return readsInOrder(records, parent) ? cut : evened(branches, false)
  }
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

/** A branch of a root: the rows that it fills, the side on which it stands, and whether it is held there. */
export interface SidedBranch {
  rows: number
  side: Side
  held: boolean
}

/** How much higher than it need be the higher side may be before branches change sides by themselves. */
const TOLERATED = 4 / 3
/** Sides of a single row are left alone: there is nothing to even out. */
const LEAST_ROWS = 2
/** Most steps that are taken to find out how even sides can be; beyond that, rows are counted by the handful. */
const MOST_STEPS = 1_000_000

const total = (branches: readonly SidedBranch[], side: Side) =>
  branches.reduce((sum, branch) => sum + (branch.side === side ? branch.rows : 0), 0)
const higher = (branches: readonly SidedBranch[]) => Math.max(total(branches, 'left'), total(branches, 'right'))

/**
 * Sides on which neither is more than `tolerated` times as high as it need be: as few branches as will do change sides, and of
 * the ways to do that the most even one is taken. What is held stays. With `inOrder` those on the right come before those on
 * the left, as they are read; so it is with more than a thousand branches too. O(branches × rows), about a million steps at most.
 */
export function evened(branches: readonly SidedBranch[], inOrder: boolean, tolerated = TOLERATED): Side[] {
  const as = branches.map(({ side }) => side)
  const rows = branches.reduce((sum, branch) => sum + branch.rows, 0)
  const now = higher(branches)
  const largest = branches.reduce((most, branch) => Math.max(most, branch.rows), 0)
  // As even as sides can ever be: nothing needs to be looked for.
  const wellOrdered = !inOrder || isInOrder(branches)
  if (now < LEAST_ROWS || (wellOrdered && now <= tolerated * Math.max(rows / 2, largest))) return as
  const handful = Math.max(1, Math.ceil((branches.length * rows) / MOST_STEPS))
  const counted = branches.map((branch) => ({ ...branch, rows: Math.ceil(branch.rows / handful) }))
  // Where branches are too many for that, one cut through all of them has to do.
  const ways = inOrder || branches.length ** 2 > MOST_STEPS ? cutsOf(counted) : sharesOf(counted)
  const least = Math.max(LEAST_ROWS, Math.min(...ways.map(({ height }) => height)))
  let best: Way | null = null
  for (const way of ways)
    if (way.height <= tolerated * least)
      if (!best || way.moved < best.moved || (way.moved === best.moved && way.height < best.height)) best = way
  return best ? best.sides() : as
}

const isInOrder = (branches: readonly SidedBranch[]) => {
  const free = branches.filter(({ held }) => !held)
  const left = free.findIndex(({ side }) => side === 'left')
  return left < 0 || free.slice(left).every(({ side }) => side === 'left')
}

/** A way to share branches out: how many change sides, and how high the higher side is then. */
interface Way {
  moved: number
  height: number
  sides(): Side[]
}

/** All ways in which the free branches that are read first stand on the right, and the others on the left. Linear. */
function cutsOf(branches: readonly SidedBranch[]): Way[] {
  const isFree = ({ held }: SidedBranch) => !held
  const rows = branches.reduce((sum, branch) => sum + branch.rows, 0)
  // With the cut before all of them, every free branch is on the left.
  let right = total(
    branches.filter(({ held }) => held),
    'right',
  )
  let moved = branches.filter((branch) => isFree(branch) && branch.side === 'right').length
  const wayAt = (cut: number): Way => ({
    moved,
    height: Math.max(right, rows - right),
    sides: () => branches.map((branch, i) => (isFree(branch) ? (i < cut ? 'right' : 'left') : branch.side)),
  })
  const ways = [wayAt(0)]
  branches.forEach((branch, i) => {
    if (!isFree(branch)) return
    right += branch.rows
    moved += branch.side === 'right' ? -1 : 1
    ways.push(wayAt(i + 1))
  })
  return ways
}

/**
 * For each number of rows that can stand on the right, the way that moves the fewest: a knapsack filled branch by branch,
 * remembering for each whether it is on the right.
 */
function sharesOf(branches: readonly SidedBranch[]): Way[] {
  const rows = branches.reduce((sum, branch) => sum + branch.rows, 0)
  let fewest = new Float64Array(rows + 1).fill(Number.POSITIVE_INFINITY)
  fewest[0] = 0
  const onRight = branches.map(({ rows: own, side, held }) => {
    const next = new Float64Array(rows + 1).fill(Number.POSITIVE_INFINITY)
    const right = new Uint8Array(rows + 1)
    for (let sum = 0; sum <= rows; sum++) {
      const before = fewest[sum]!
      if (before === Number.POSITIVE_INFINITY) continue
      const asLeft = before + (side === 'left' ? 0 : 1)
      const asRight = before + (side === 'right' ? 0 : 1)
      if (!(held && side === 'right') && asLeft < next[sum]!) {
        next[sum] = asLeft
        right[sum] = 0
      }
      if (!(held && side === 'left') && asRight < next[sum + own]!) {
        next[sum + own] = asRight
        right[sum + own] = 1
      }
    }
    fewest = next
    return right
  })
  const ways: Way[] = []
  fewest.forEach((moved, sum) => {
    if (moved === Number.POSITIVE_INFINITY) return
    const sides = () => {
      let left = sum
      const found = branches.map((): Side => 'left')
      for (let i = branches.length - 1; i >= 0; i--)
        if (onRight[i]![left] === 1) {
          found[i] = 'right'
          left -= branches[i]!.rows
        }
      return found
    }
    ways.push({ moved, height: Math.max(sum, rows - sum), sides })
  })
  return ways
}

/** The side to which a branch is held: by a person, or by the place that it was given. */
const heldSideOf = (topic: TopicRecord): Side | null => (topic.held || isPlacedByHand(topic) ? sideOf(topic) : null)

/** The branches of a root as they stand. */
const sided = (records: Records, branches: readonly TopicRecord[]): SidedBranch[] =>
  branches.map((branch) => ({
    rows: rowsOf(records, branch),
    side: sideOf(branch) ?? 'right',
    held: heldSideOf(branch) !== null,
  }))

/** Sides for the first-level branches of a root, evened out as far as they must be; with `tolerated` 1, as far as can be. */
export const evenedSidesOf = (records: Records, root: TopicRecord, tolerated = TOLERATED): Side[] =>
  evened(sided(records, records.children(root.id)), readsInOrder(records, root), tolerated)

/** Sides for branches that have none yet, those that are held to a side on it. */
export function evenSidesOf(records: Records, branches: readonly TopicRecord[]): Side[] {
  return evenSides(
    branches.map((branch) => rowsOf(records, branch)),
    branches.map(heldSideOf),
  )
}
