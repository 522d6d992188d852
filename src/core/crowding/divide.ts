import { type Bearable, COSTS, pieceCost } from './piece-cost'
import { childrenOf, type TopicTree } from './topic-tree'

const NEVER = Number.POSITIVE_INFINITY

/** Least costs by the size of a map so far, and for each size what it was joined from: the size before, and that of the branch. */
interface Joined {
  costs: Float64Array
  from: Int32Array
}

/**
 * Where to cut a tree so that the maps it falls into cost least, each cut charged as `charge` says in addition. Below a cut
 * node begins a map with that topic as its root, and the topic itself stays as a doorway. Ties are left aside.
 *
 * Exact, by dynamic programming over the tree: of each node the least cost for every size of the map it stands on (as for
 * knapsacks on trees: Johnson and Niemi 1983, On knapsacks, partitions, and a new dynamic programming technique for trees).
 * Beyond the limit each further topic costs the same, so that sizes up to the limit tell all: O(n · limit). Returns the nodes
 * that are cut, in order.
 */
export function divideTree(tree: TopicTree, bearable: Bearable, charge: (node: number) => number): number[] {
  const { length } = tree.parent
  const { limit } = bearable
  const open: Float64Array[] = new Array(length)
  /** Of each node what it costs cut off, with all below it. */
  const closed = new Float64Array(length).fill(NEVER)
  const joins: Int32Array[] = new Array(length)
  for (let node = length - 1; node >= 0; node--) {
    let costs = alone(tree.weight[node]!, limit)
    for (const child of childrenOf(tree, node)) {
      const joined = join(costs, orDoorway(open[child]!, closed[child]!, tree.weight[child]!, limit), limit)
      costs = joined.costs
      joins[child] = joined.from
    }
    open[node] = costs
    if (tree.cuttable[node])
      closed[node] = COSTS.map + charge(node) + wholeCost(costs, bestSize(costs, bearable), bearable)
  }

  const cuts: number[] = []
  const heads: [number, number][] = [[0, bestSize(open[0]!, bearable)]]
  for (let head = heads.pop(); head; head = heads.pop()) {
    const [node, total] = head
    let size = total
    for (const child of childrenOf(tree, node).reverse()) {
      const from = joins[child]![size]!
      const part = from % (limit + 1)
      size = (from - part) / (limit + 1)
      if (isDoorway(part, open[child]!, closed[child]!, tree.weight[child]!, limit)) {
        cuts.push(child)
        heads.push([child, bestSize(open[child]!, bearable)])
      } else heads.push([child, part])
    }
  }
  return cuts.sort((a, b) => a - b)
}

const overCost = (weight: number, limit: number): number => Math.max(0, weight - limit) * COSTS.over

/** A topic by itself. */
function alone(weight: number, limit: number): Float64Array {
  const costs = new Float64Array(Math.min(weight, limit) + 1).fill(NEVER)
  costs[costs.length - 1] = overCost(weight, limit)
  return costs
}

/** A branch as its parent's map sees it: with so much of its own, or as a doorway, which weighs what its topic does. */
function orDoorway(open: Float64Array, closed: number, weight: number, limit: number): Float64Array {
  const costs = open.slice()
  const at = Math.min(weight, limit)
  costs[at] = Math.min(costs[at]!, closed + overCost(weight, limit))
  return costs
}

const isDoorway = (part: number, open: Float64Array, closed: number, weight: number, limit: number): boolean =>
  part === Math.min(weight, limit) && closed + overCost(weight, limit) < open[part]!

function join(costs: Float64Array, branch: Float64Array, limit: number): Joined {
  const most = Math.min(limit, costs.length + branch.length - 2)
  const joined = new Float64Array(most + 1).fill(NEVER)
  const from = new Int32Array(most + 1)
  for (let size = 1; size < costs.length; size++)
    for (let part = 1; part < branch.length; part++) {
      const over = Math.max(0, size + part - limit)
      const cost = costs[size]! + branch[part]! + over * COSTS.over
      const at = size + part - over
      if (cost < joined[at]!) {
        joined[at] = cost
        from[at] = size * (limit + 1) + part
      }
    }
  return { costs: joined, from }
}

/** What a finished map costs; what it has over the limit was charged as it grew. */
const wholeCost = (costs: Float64Array, size: number, bearable: Bearable): number =>
  costs[size]! + pieceCost(size, bearable)

function bestSize(costs: Float64Array, bearable: Bearable): number {
  let best = 0
  for (let size = 1; size < costs.length; size++)
    if (wholeCost(costs, size, bearable) < wholeCost(costs, best, bearable)) best = size
  return best
}
