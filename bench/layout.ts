import { flextree } from 'd3-flextree'
import { layoutBothSides } from '../src/core/layout/both-sides'
import { type BoxTree, boxTree, SPACING } from '../src/core/layout/tree'
import { compare, type Measurement, median, seededRandom } from './measure'

interface Topic {
  width: number
  height: number
  left: boolean
  children: Topic[]
}

/** A tree of mixed sizes as maps have them: most topics have few children, some have many. */
function makeTopics(count: number): Topic {
  const random = seededRandom(count)
  const make = (): Topic => ({
    width: 40 + random() * 220,
    height: random() < 0.8 ? 26 : 46 + Math.floor(random() * 3) * 20,
    left: random() < 0.5,
    children: [],
  })
  const root = make()
  const open = [root]
  for (let i = 1; i < count; i++) {
    const topic = make()
    const parent = open[Math.floor(random() ** 1.5 * open.length)]!
    parent.children.push(topic)
    open.push(topic)
    if (parent.children.length > 3 + random() * 12) open.splice(open.indexOf(parent), 1)
  }
  return root
}

function flatten(root: Topic, count: number): BoxTree {
  const tree = boxTree(count)
  let used = 0
  const waiting: { topic: Topic; parent: number }[] = [{ topic: root, parent: -1 }]
  const last = new Int32Array(count).fill(-1)
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { topic, parent } = next
    const at = used++
    tree.width[at] = topic.width
    tree.height[at] = topic.height
    tree.left[at] = topic.left ? 1 : 0
    tree.parent[at] = parent
    if (parent >= 0) {
      if (last[parent]! < 0) tree.first[parent] = at
      else tree.next[last[parent]!] = at
      last[parent] = at
    }
    for (let i = topic.children.length - 1; i >= 0; i--) waiting.push({ topic: topic.children[i]!, parent: at })
  }
  return tree
}

/** Counts overlapping pairs by a sweep over the upper edges. */
function countOverlaps(tree: BoxTree): number {
  const { x, y } = layoutBothSides(tree)
  const order = [...Array(tree.count).keys()].sort((a, b) => y[a]! - y[b]!)
  let active: number[] = []
  let overlaps = 0
  for (const at of order) {
    active = active.filter((other) => y[other]! + tree.height[other]! > y[at]! + 1e-6)
    for (const other of active)
      if (x[at]! < x[other]! + tree.width[other]! - 1e-6 && x[other]! < x[at]! + tree.width[at]! - 1e-6) overlaps++
    active.push(at)
  }
  return overlaps
}

const timed = (work: () => unknown): number => {
  const start = performance.now()
  work()
  return performance.now() - start
}

/** Both take nested topics with sizes and end with a position for each; rounds alternate. */
function layoutAgainstPeer(name: string, count: number, rounds: number): Measurement {
  const topics = makeTopics(count)
  const peer = flextree<Topic>({
    nodeSize: (node) => [node.data.height + SPACING.siblings[1], node.data.width + SPACING.level],
    spacing: 0,
  })
  const ours: number[] = []
  const theirs: number[] = []
  for (let round = 0; round < rounds; round++) {
    ours.push(timed(() => layoutBothSides(flatten(topics, count))))
    theirs.push(timed(() => peer(peer.hierarchy(topics))))
  }
  const overlaps = countOverlaps(flatten(topics, count))
  const result = compare({
    name,
    value: median(ours),
    unit: 'ms',
    peer: 'd3-flextree',
    peerValue: median(theirs),
    limit: 1 / 8,
    better: 'lower',
  })
  return { ...result, ok: result.ok && overlaps === 0, note: `${overlaps} overlaps` }
}

export const layoutBenches = {
  'layout-10k': () => layoutAgainstPeer('layout-10k', 10_000, 25),
  'layout-100k': () => layoutAgainstPeer('layout-100k', 100_000, 7),
}
