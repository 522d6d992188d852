import { crosslinkIsQuiet } from '../network/crosslinks'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { layoutBothSides } from './both-sides'
import { type SetText, setTopicText, typeSizeAt } from './topic-box'
import { type BoxTree, boxTree } from './tree'

/** Small signs at the end of a topic that tell what it carries, in the order in which they are drawn. */
export type Sign = 'note' | 'file' | 'web' | 'link'
interface SignCount {
  sign: Sign
  count: number
}

/** A topic with its place on the map. Lengths in px; x and y are the upper left corner, the root's middle is 0, 0. */
export interface TopicBox {
  topic: TopicRecord
  x: number
  y: number
  width: number
  height: number
  level: number
  /** Which of the eight branch hues; -1 at the root and at heads of loose branches. */
  hue: number
  growsLeft: boolean
  text: SetText
  signs: readonly SignCount[]
  /** Topics behind a doorway; null where the topic is none. */
  behind: number | null
  /** Topics hidden below a folded topic. */
  hidden: number
  parent: TopicBox | null
}

export interface Bounds {
  x: number
  y: number
  width: number
  height: number
}

export interface MapLayout {
  /** In reading order: a parent before its children. */
  boxes: readonly TopicBox[]
  byTopic: ReadonlyMap<string, TopicBox>
  bounds: Bounds
}

/** How many topics a map holds, for maps whose topics are not among the records. */
export type CountTopics = (map: string) => number

const HUES = 8
export const SIGN_SIZE = 16
export const SIGN_COUNT_WIDTH = 8
/** Width of the turned-down corner with its number. */
export const DOORWAY_WIDTH = 34

/**
 * Lays out a map: the root's branch to both sides, loose branches at the points they were given, moved down until they
 * are clear. A pure function of the records, the same on every machine. Linear in the visible topics but for the
 * loose branches, which are compared with one another.
 */
export function layoutMap(records: Records, map: string, countTopics: CountTopics): MapLayout {
  const boxes: TopicBox[] = []
  const root = records.root(map)
  if (root) boxes.push(...layoutBranch(records, root, countTopics))
  const taken: Bounds[] = boxes.length > 0 ? [boundsOf(boxes)] : []
  for (const head of records.looseBranches(map)) {
    const branch = layoutBranch(records, head, countTopics)
    const bounds = moveTo(branch, head.place.x!, head.place.y!)
    clear(branch, bounds, taken, boxes)
    taken.push(bounds)
    boxes.push(...branch)
  }
  return { boxes, byTopic: new Map(boxes.map((box) => [box.topic.id as string, box])), bounds: boundsOf(boxes) }
}

/** The boxes of one branch with its head's middle at 0, 0. */
function layoutBranch(records: Records, head: TopicRecord, countTopics: CountTopics): TopicBox[] {
  const boxes = visibleTopics(records, head, countTopics)
  const { x, y } = layoutBothSides(treeOf(boxes))
  boxes.forEach((box, i) => {
    box.x = x[i]! + (box.growsLeft ? foldSpace(box) : 0)
    box.y = y[i]!
  })
  return boxes
}

function visibleTopics(records: Records, head: TopicRecord, countTopics: CountTopics): TopicBox[] {
  const boxes: TopicBox[] = []
  const waiting: { topic: TopicRecord; parent: TopicBox | null; at: number }[] = [{ topic: head, parent: null, at: 0 }]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { topic, parent } = next
    const children = records.children(topic.id)
    const box = boxFor(records, topic, parent, next.at, topic.folded ? children.length : 0, countTopics)
    boxes.push(box)
    if (topic.folded && parent) continue
    for (let i = children.length - 1; i >= 0; i--) waiting.push({ topic: children[i]!, parent: box, at: i })
  }
  return boxes
}

function boxFor(
  records: Records,
  topic: TopicRecord,
  parent: TopicBox | null,
  at: number,
  folded: number,
  countTopics: CountTopics,
): TopicBox {
  const level = parent ? parent.level + 1 : 0
  const text = setTopicText(topic.text, level)
  const type = typeSizeAt(level)
  const signs = signsOf(records, topic)
  const behind = topic.opensMap ? countTopics(topic.opensMap) : null
  let width = text.width + type.padX * 2
  for (const { count } of signs) width += SIGN_SIZE + (count > 1 ? SIGN_COUNT_WIDTH : 0)
  if (signs.length > 0) width += 4
  if (behind !== null) width += DOORWAY_WIDTH
  return {
    topic,
    x: 0,
    y: 0,
    width,
    height: text.height + type.padY * 2,
    level,
    hue: parent ? (parent.level === 0 ? at % HUES : parent.hue) : -1,
    growsLeft: parent ? (parent.level === 0 ? topic.place.side === 'left' : parent.growsLeft) : false,
    text,
    signs,
    behind,
    hidden: folded > 0 && parent ? countBelow(records, topic) : 0,
    parent,
  }
}

function countBelow(records: Records, topic: TopicRecord): number {
  let count = 0
  const waiting = [...records.children(topic.id)]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    count++
    waiting.push(...records.children(next.id))
  }
  return count
}

function signsOf(records: Records, topic: TopicRecord): SignCount[] {
  const signs: SignCount[] = []
  if (topic.note && (records.get('note', topic.note)?.text.trim() ?? '') !== '') signs.push({ sign: 'note', count: 1 })
  const files = records.attachments(topic.id).length
  if (files > 0) signs.push({ sign: 'file', count: files })
  const weblinks = records.weblinks(topic.id).length
  if (weblinks > 0) signs.push({ sign: 'web', count: weblinks })
  let quiet = 0
  for (const link of records.crosslinksFrom(topic.id)) if (crosslinkIsQuiet(records, link)) quiet++
  for (const link of records.crosslinksTo(topic.id)) if (crosslinkIsQuiet(records, link)) quiet++
  if (quiet > 0) signs.push({ sign: 'link', count: quiet })
  return signs
}

/** Room beside a folded topic for the number of topics that it hides. */
const foldSpace = (box: TopicBox) => (box.hidden > 0 ? 32 : 0)

function treeOf(boxes: readonly TopicBox[]): BoxTree {
  const tree = boxTree(boxes.length)
  const index = new Map<TopicBox, number>()
  const lastChild = new Int32Array(boxes.length).fill(-1)
  boxes.forEach((box, i) => {
    index.set(box, i)
    tree.width[i] = box.width + foldSpace(box)
    tree.height[i] = box.height
    tree.left[i] = box.growsLeft ? 1 : 0
    if (!box.parent) return
    const parent = index.get(box.parent)!
    tree.parent[i] = parent
    if (lastChild[parent]! < 0) tree.first[parent] = i
    else tree.next[lastChild[parent]!] = i
    lastChild[parent] = i
  })
  return tree
}

/** The smallest rectangle around boxes; a point at 0, 0 where there are none. */
export function boundsOf(boxes: readonly { x: number; y: number; width: number; height: number }[]): Bounds {
  if (boxes.length === 0) return { x: 0, y: 0, width: 0, height: 0 }
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity]
  for (const box of boxes) {
    left = Math.min(left, box.x)
    top = Math.min(top, box.y)
    right = Math.max(right, box.x + box.width)
    bottom = Math.max(bottom, box.y + box.height)
  }
  return { x: left, y: top, width: right - left, height: bottom - top }
}

function moveTo(branch: TopicBox[], x: number, y: number): Bounds {
  for (const box of branch) {
    box.x += x
    box.y += y
  }
  return boundsOf(branch)
}

const CLEARANCE = 16
const overlaps = (a: Bounds, b: Bounds, gap: number) =>
  a.x < b.x + b.width + gap && b.x < a.x + a.width + gap && a.y < b.y + b.height + gap && b.y < a.y + a.height + gap

/** Moves a loose branch down until none of its boxes touches anything that already stands. */
function clear(branch: TopicBox[], bounds: Bounds, taken: readonly Bounds[], standing: readonly TopicBox[]): void {
  const near = (at: Bounds) => taken.some((other) => overlaps(at, other, CLEARANCE))
  while (near(bounds)) {
    const hit = standing.find(
      (box) => overlaps(bounds, box, CLEARANCE) && branch.some((own) => overlaps(own, box, CLEARANCE)),
    )
    if (!hit) return
    const down = hit.y + hit.height + CLEARANCE - bounds.y
    for (const box of branch) box.y += down
    bounds.y += down
  }
}
