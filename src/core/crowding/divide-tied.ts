import { divideTree } from './divide'
import { Division } from './division'
import { type Bearable, COSTS } from './piece-cost'
import { childrenOf, type TopicTree } from './topic-tree'

/** Rounds over all nodes in which a division is bettered; most come to rest after three. */
const ROUNDS = 12
/** Larger trees are begun once, halfway between the extremes. */
const LARGE = 5_000
/** Changes that are tried at one division at most, so that work stays bounded whatever the tree. */
const TRIALS = 400_000

/**
 * Where to cut a tree so that the maps it falls into cost least: what they bear, the maps made and the ties cut. Begins with
 * the exact answers for two extremes, ties that cost nothing and ties that cost at every cut above them, and betters each
 * by making, taking back and shifting cuts as long as that helps. Exact where no tie counts. Returns the nodes that are cut,
 * in order. O(n · limit) and `TRIALS` trials.
 */
export function divideTied(tree: TopicTree, bearable: Bearable): number[] {
  if (tree.ties.length === 0) return divideTree(tree, bearable, () => 0)
  const leaving = tiesLeaving(tree)
  const charges = tree.parent.length > LARGE ? [COSTS.cut / 2] : [0, COSTS.cut / 2, COSTS.cut]
  const divisions = charges.map((each) => {
    const division = new Division(
      tree,
      bearable,
      divideTree(tree, bearable, (node) => leaving[node]! * each),
    )
    better(division, tree)
    return division
  })
  return divisions.reduce((best, next) => (next.cost < best.cost ? next : best)).cuts
}

/** Of each node how many ties have one end below it and the other not. O(n and ties times depth). */
function tiesLeaving({ parent, ties }: TopicTree): Int32Array {
  const leaving = new Int32Array(parent.length)
  const above = new Set<number>()
  for (const [a, b] of ties) {
    above.clear()
    for (let node = parent[a]!; node >= 0; node = parent[node]!) above.add(node)
    let node = parent[b]!
    for (; node >= 0 && !above.has(node); node = parent[node]!) leaving[node]!++
    for (let other = parent[a]!; other !== node && other >= 0; other = parent[other]!) leaving[other]!++
  }
  return leaving
}

/** Less than this is no gain: sums of costs are not exact. */
const GAIN = -1e-9

function better(division: Division, tree: TopicTree): void {
  const { length } = tree.parent
  let trials = TRIALS
  for (let round = 0; round < ROUNDS; round++) {
    let isBetter = false
    for (let node = 1; node < length && trials > 0; node++) {
      if (!tree.cuttable[node]) continue
      trials--
      const change = division.changeBy(node)
      if (change.cost < GAIN) division.toggle(node)
      else {
        // Without ties the beginning was exact already.
        if (change.ties === 0) continue
        const near = [tree.parent[node]!, ...childrenOf(tree, node), ...siblingsOf(tree, node)]
        trials -= near.length
        if (!togglesTogether(division, tree, node, change.cost, near)) continue
      }
      isBetter = true
    }
    if (!isBetter) return
  }
}

const siblingsOf = (tree: TopicTree, node: number): number[] =>
  childrenOf(tree, tree.parent[node]!).filter((other) => other !== node)

/** Whether a change at a node helps together with one near it; then both are made. */
function togglesTogether(
  division: Division,
  tree: TopicTree,
  node: number,
  change: number,
  near: readonly number[],
): boolean {
  division.toggle(node)
  for (const other of near) {
    if (!tree.cuttable[other] || change + division.changeBy(other).cost >= GAIN) continue
    division.toggle(other)
    return true
  }
  division.toggle(node)
  return false
}
