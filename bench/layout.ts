import { flextree } from 'd3-flextree'
import { type Block, Leaf, SPACING } from '../src/core/layout/block'
import { setChildren } from '../src/core/layout/kinds/set-children'
import { Lengths } from '../src/core/layout/lengths'
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

type Branch = Block<Topic>

const days: null[] = []
const NONE: never[] = []
const facts = { isLeft: () => false, days }

/** Sets a branch whose children are set, as the map's layouter does. `left` tells the side on which it stands. */
function setBranch(lengths: Lengths, topic: Topic, children: readonly Branch[], level: number, left: boolean): Branch {
  if (children.length === 0) return new Leaf(topic, lengths, topic.width, topic.height)
  const head = { content: topic, lengths, width: topic.width, height: topic.height, children, enclosed: NONE }
  const setting = level === 0 ? 'both' : left ? 'left' : 'right'
  return setChildren(head, setting, level, 1, level === 0 ? { isLeft: (i) => children[i]!.content.left, days } : facts)
}

/** Lays out nested topics, children before their parents, without recursion. */
function layOut(lengths: Lengths, root: Topic): Branch {
  interface Open {
    topic: Topic
    level: number
    left: boolean
    blocks: Branch[]
    done: number
  }
  const opened = (topic: Topic, level: number, left: boolean): Open => {
    return { topic, level, left, blocks: new Array<Branch>(topic.children.length), done: 0 }
  }
  const open = [opened(root, 0, false)]
  while (true) {
    const at = open.at(-1)!
    const next = at.topic.children[at.done]
    if (next && next.children.length === 0) {
      at.blocks[at.done++] = setBranch(lengths, next, NONE, at.level + 1, at.level === 0 ? next.left : at.left)
      continue
    }
    if (next) {
      open.push(opened(next, at.level + 1, at.level === 0 ? next.left : at.left))
      continue
    }
    const block = setBranch(lengths, at.topic, at.blocks, at.level, at.left)
    open.pop()
    const parent = open.at(-1)
    if (!parent) return block
    parent.blocks[parent.done++] = block
  }
}

interface Positions {
  /** The branches whose heads are positioned: one with children before those below it. */
  heads: Branch[]
  x: Float64Array
  y: Float64Array
}

/** Where every topic stands. */
function positionsOf(lengths: Lengths, root: Branch, count: number): Positions {
  const heads = new Array<Branch>(count)
  const x = new Float64Array(count)
  const y = new Float64Array(count)
  const { numbers } = lengths
  heads[0] = root
  let used = 1
  const parents = [0]
  for (const own of parents) {
    const { children, corners } = heads[own]!
    for (let i = 0; i < children.length; i++) {
      const child = children[i]!
      if (child.children.length > 0) parents.push(used)
      x[used] = x[own]! + numbers[corners + 2 * i]!
      y[used] = y[own]! + numbers[corners + 2 * i + 1]!
      heads[used++] = child
    }
  }
  return { heads, x, y }
}

/** Counts overlapping pairs by a sweep over the upper edges. */
function countOverlaps({ heads, x, y }: Positions): number {
  const order = [...x.keys()].sort((a, b) => y[a]! - y[b]!)
  const right = (at: number) => x[at]! + heads[at]!.width
  let active: number[] = []
  let overlaps = 0
  for (const at of order) {
    active = active.filter((other) => y[other]! + heads[other]!.height > y[at]! + 1e-6)
    for (const other of active) if (x[at]! < right(other) - 1e-6 && x[other]! < right(at) - 1e-6) overlaps++
    active.push(at)
  }
  return overlaps
}

const timed = (work: () => unknown): number => {
  const start = performance.now()
  work()
  return performance.now() - start
}

const peer = flextree<Topic>({
  nodeSize: (node) => [node.data.height + SPACING.siblings[1], node.data.width + SPACING.level],
  spacing: 0,
})

function placed(topics: Topic, count: number): Positions {
  const lengths = new Lengths(count)
  return positionsOf(lengths, layOut(lengths, topics), count)
}

/** Both take nested topics with sizes and end with a position for each; rounds alternate. */
function layoutAgainstPeer(name: string, count: number, rounds: number): Measurement {
  const topics = makeTopics(count)
  const ours: number[] = []
  const theirs: number[] = []
  for (let round = 0; round < rounds; round++) {
    ours.push(timed(() => placed(topics, count)))
    theirs.push(timed(() => peer(peer.hierarchy(topics))))
  }
  const overlaps = countOverlaps(placed(topics, count))
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

/** The way from the root to a topic, as indices among the children: to one in the middle of the map, deep down. */
function wayDown(root: Branch): number[] {
  const way: number[] = []
  for (let at = root; at.children.length > 0; at = at.children[way.at(-1)!]!) way.push(at.children.length >> 1)
  return way
}

/** The text of one topic grows by a line: the branches on the way to the root are set anew, then everything has its place. */
function relayout(count: number, rounds: number): Measurement {
  const topics = makeTopics(count)
  const lengths = new Lengths(count)
  let root = layOut(lengths, topics)
  const way = wayDown(root)
  const ours: number[] = []
  const theirs: number[] = []
  let grown: Topic | null = null
  for (let round = 0; round < rounds; round++) {
    ours.push(
      timed(() => {
        const path = [root]
        for (const index of way) path.push(path.at(-1)!.children[index]!)
        const left = path[1]!.content.left
        const leaf = path.at(-1)!
        grown = { ...leaf.content, height: leaf.content.height + 20 }
        let block = setBranch(lengths, grown, [], way.length, left)
        for (let level = way.length - 1; level >= 0; level--) {
          const children = [...path[level]!.children]
          children[way[level]!] = block
          block = setBranch(lengths, path[level]!.content, children, level, left)
        }
        root = block
        return positionsOf(lengths, root, count)
      }),
    )
    if (round % 5 === 0) theirs.push(timed(() => peer(peer.hierarchy(topics))))
  }
  const result = compare({
    name: 'relayout-10k',
    value: median(ours),
    unit: 'ms',
    peer: 'd3-flextree, all of it',
    peerValue: median(theirs),
    limit: 1 / 160,
    better: 'lower',
  })
  return { ...result, note: `${countOverlaps(positionsOf(lengths, root, count))} overlaps after ${rounds} changes` }
}

export const layoutBenches = {
  'layout-10k': () => layoutAgainstPeer('layout-10k', 10_000, 25),
  'relayout-10k': () => relayout(10_000, 60),
  'layout-100k': () => layoutAgainstPeer('layout-100k', 100_000, 7),
}
