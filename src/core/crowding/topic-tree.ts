import type { TopicId } from '../records/ids'
import { hangs } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'

/**
 * A tree of topics as numbers, each parent before its children and each branch in one run; node 0 is the root.
 * `ties` are pairs of nodes that should stay on one map: the ends of cross-links. Enclosures need none: they stand around
 * neighbours, which stay together with their parent.
 */
export interface TopicTree {
  /** The node above; -1 for the root. */
  parent: Int32Array
  /** The first node after the branch. */
  end: Int32Array
  /** How much of what a map bears the node takes: a topic is 1. */
  weight: Int32Array
  /** Whether what lies below the node can become a map of its own. */
  cuttable: Uint8Array
  /** Whether the node really hangs on the one above: a loose branch is there as if it did, and is nobody's sibling. */
  hangs: Uint8Array
  ties: readonly (readonly [number, number])[]
}

/** Makes a tree of nodes that weigh 1 from parents that come before their children. Nodes with something below them can be cut off, but for the root. O(n). */
export function treeOf(parents: readonly number[], ties: readonly (readonly [number, number])[] = []): TopicTree {
  const parent = Int32Array.from(parents)
  const end = Int32Array.from(parents, (_, node) => node + 1)
  for (let node = parent.length - 1; node > 0; node--) {
    const above = parent[node]!
    end[above] = Math.max(end[above]!, end[node]!)
  }
  const cuttable = Uint8Array.from(parents, (_, node) => (node > 0 && end[node]! > node + 1 ? 1 : 0))
  const [weight, hangs] = [new Int32Array(parents.length).fill(1), new Uint8Array(parents.length).fill(1)]
  return { parent, end, weight, cuttable, hangs, ties }
}

/** The nodes just below one, in order. O(their number). */
export function childrenOf({ end }: TopicTree, node: number): number[] {
  const children: number[] = []
  for (let child = node + 1; child < end[node]!; child = end[child]!) children.push(child)
  return children
}

/** A tree of the topics that stand on a map, by node. */
export interface PlacedTree {
  tree: TopicTree
  topics: readonly TopicRecord[]
}

/**
 * A map as a tree, its loose branches as if they hung on the root; null for a map without one. Doorways cannot be cut off
 * again. O(topics of the map and cross-links).
 */
export function topicTreeOf(records: Records, map: string): PlacedTree | null {
  const root = records.root(map)
  if (!root) return null
  const topics: TopicRecord[] = []
  const parents: number[] = []
  const waiting: [TopicRecord, number][] = [[root, -1]]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const [topic, above] = next
    const node = topics.push(topic) - 1
    parents.push(above)
    const children = [...records.children(topic.id), ...(above < 0 ? records.looseBranches(map) : [])]
    for (let i = children.length - 1; i >= 0; i--) waiting.push([children[i]!, node])
  }
  const nodes = new Map(topics.map(({ id }, node) => [id, node]))
  const tree = treeOf(parents, tiesAmong(records, nodes))
  for (const [node, { opensMap, place }] of topics.entries()) {
    if (opensMap) tree.cuttable[node] = 0
    if (!hangs(place)) tree.hangs[node] = 0
  }
  return { tree, topics }
}

/** The part of a tree that is one map when it is cut: from a node on, as far as no cut node is passed. O(its nodes and all ties). */
export function mapWithin(
  { tree, topics }: PlacedTree,
  head: number,
  isCut: (node: number) => boolean,
): PlacedTree & { nodes: number[] } {
  const nodes: number[] = []
  const placed = new Map<number, number>()
  const waiting = [head]
  for (let node = waiting.pop(); node !== undefined; node = waiting.pop()) {
    placed.set(node, nodes.push(node) - 1)
    if (node === head || !isCut(node)) waiting.push(...childrenOf(tree, node).reverse())
  }
  const parents = nodes.map((node) => (node === head ? -1 : placed.get(tree.parent[node]!)!))
  const ties = tree.ties.flatMap(([a, b]): [number, number][] => {
    const [from, to] = [placed.get(a), placed.get(b)]
    return from === undefined || to === undefined ? [] : [[from, to]]
  })
  const part = treeOf(parents, ties)
  for (const [i, node] of nodes.entries()) {
    if (!tree.cuttable[node]) part.cuttable[i] = 0
    part.hangs[i] = tree.hangs[node]!
  }
  return { tree: part, topics: nodes.map((node) => topics[node]!), nodes }
}

function tiesAmong(records: Records, nodes: ReadonlyMap<TopicId, number>): [number, number][] {
  const ties: [number, number][] = []
  for (const { trashed, from, to } of records.all('crosslink')) {
    const [a, b] = [nodes.get(from), to.kind === 'topic' ? nodes.get(to.id) : undefined]
    if (!trashed && a !== undefined && b !== undefined && a !== b) ties.push([a, b])
  }
  return ties
}
