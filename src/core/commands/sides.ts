import type { Records } from '../records/records'
import type { Side, TopicRecord } from '../records/topic'

/** Rows that a branch fills: one for each topic that shows nothing below it. */
function rows(records: Records, head: TopicRecord): number {
  let count = 0
  const waiting = [head]
  for (let topic = waiting.pop(); topic; topic = waiting.pop()) {
    const children = topic.folded ? [] : records.children(topic.id)
    if (children.length === 0) count++
    else waiting.push(...children)
  }
  return count
}

function rowsOnSides(records: Records, root: TopicRecord): Record<Side, number> {
  const total = { left: 0, right: 0 }
  for (const child of records.children(root.id)) total[child.place.side ?? 'right'] += rows(records, child)
  return total
}

/** How many rows one side may be ahead before a new topic goes to the other. */
const AHEAD = 2

/**
 * The side for a new first-level topic: beside its neighbour as long as the sides stay about even, else on the lighter
 * side. Nothing that already stands is moved.
 */
export function sideForNew(records: Records, root: TopicRecord, neighbour: TopicRecord | undefined): Side {
  const total = rowsOnSides(records, root)
  const preferred = neighbour?.place.side ?? (total.right <= total.left ? 'right' : 'left')
  const other = preferred === 'right' ? 'left' : 'right'
  return total[preferred] > total[other] + AHEAD ? other : preferred
}

/**
 * Sides for a row of first-level branches, given the rows that each fills: the first ones right, the rest left, cut
 * where the two are most even, so that reading order runs down the right side and then down the left. What is held to a
 * side stays there and counts.
 */
export function evenSides(weights: readonly number[], held: readonly (Side | null)[] = []): Side[] {
  const sideAt = (i: number, cut: number): Side => held[i] ?? (i < cut ? 'right' : 'left')
  const uneven = (cut: number): number =>
    Math.abs(weights.reduce((sum, weight, i) => sum + (sideAt(i, cut) === 'right' ? weight : -weight), 0))
  let best = weights.length
  // Ties go to the first cut that leaves anything on the right, as in a map with a single branch.
  let least = held.some(Boolean) ? uneven(best) : weights.reduce((sum, weight) => sum + weight, 0)
  for (let cut = 1; cut <= weights.length; cut++) {
    const rest = uneven(cut)
    if (rest >= least) continue
    least = rest
    best = cut
  }
  return weights.map((_, i) => sideAt(i, best))
}

/** How much heavier one side may be before branches change sides by themselves. */
const [TIMES, ROWS] = [2, 6]

/** Whether the sides of a root are so uneven that they should be evened out. */
export function isLopsided(records: Records, root: TopicRecord): boolean {
  const { left, right } = rowsOnSides(records, root)
  return Math.max(left, right) > TIMES * Math.min(left, right) + ROWS
}

export function evenSidesOf(records: Records, branches: readonly TopicRecord[]): Side[] {
  return evenSides(
    branches.map((branch) => rows(records, branch)),
    branches.map(({ held, place }) => (held ? place.side : null)),
  )
}
