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
 * where the two are most even, so that reading order runs down the right side and then down the left.
 */
export function evenSides(weights: readonly number[]): Side[] {
  const total = weights.reduce((sum, weight) => sum + weight, 0)
  let sum = 0
  let cut = weights.length
  let best = total
  weights.forEach((weight, i) => {
    sum += weight
    const uneven = Math.abs(total - 2 * sum)
    if (uneven < best) {
      best = uneven
      cut = i + 1
    }
  })
  return weights.map((_, i) => (i < cut ? 'right' : 'left'))
}

export function evenSidesOf(records: Records, branches: readonly TopicRecord[]): Side[] {
  return evenSides(branches.map((branch) => rows(records, branch)))
}
