import { dequal } from 'dequal/lite'
import { type Inherited, inheritedOn, LEVELS } from '../look/styles'
import { crosslinkIsQuiet } from '../network/crosslinks'
import type { MapRecord } from '../records/map'
import type { Records } from '../records/records'
import { isPlacedByHand, type TopicRecord } from '../records/topic'
import { measureLine } from '../text/measure'
import { noteBeginning } from '../text/note-beginning'
import { type Numbering, numberingBelow, numbersOf } from '../tree/numbering'
import type { Block, Enclosed, Frame, Growth } from './block'
import {
  type Bounds,
  type Branch,
  boundsOf,
  type EnclosureBox,
  type Face,
  type MapLayout,
  type Part,
  type SignCount,
  TopicBox,
} from './boxes'
import { growthOf, isFlanked, type Setting, setChildren, settingBelow } from './kinds/set-children'
import { makeRoom, moveClear } from './make-room'
import { EXCERPT, setExcerpt, setTags, setTopicText, sizeOf, TAGS } from './topic-box'

/** How many topics a map holds, for maps whose topics are not among the records. */
export type CountTopics = (map: string) => number

const HUES = 8
export const SIGN_SIZE = 16
export const SIGN_COUNT_WIDTH = 8
/** Width of the turned-down corner with its number. */
export const DOORWAY_WIDTH = 34
/** Room beside a folded topic for the number of topics that it hides. */
const FOLD_SPACE = 32
/** Room above a branch over which its connector comes. */
export const ROUTE_SPACE = 10
/** Height of an enclosure's title, and the size in which it is set. */
export const ENCLOSURE_TITLE = { height: 20, size: 13 }

/** What a topic's block depends on besides what is in the branch. */
interface Context {
  level: number
  growth: Growth | null
  setting: Setting
  spacing: number
  number: string | null
  below: Numbering | null
  /** The looks that the topic inherits. */
  look: Inherited
}

/** What a block carries: the topic's face, and the children that keep places of their own. */
interface Content {
  face: Face
  byHand: readonly { topic: TopicRecord; context: Context }[]
  /** Whether it or a block below has such children. */
  anyByHand: boolean
}
type TopicBlock = Block<Content>

const keyOf = ({ level, growth, setting, spacing, number, below, look }: Context): string =>
  `${Math.min(level, LEVELS)} ${look.id} ${growth} ${setting} ${spacing} ${number} ${below ? `${below.scheme} ${below.depth} ${below.above}` : ''}`

/** Lays out a map once. A pure function of the records, the same on every machine; see `MapLayouter`. */
export const layoutMap = (records: Records, map: string, countTopics: CountTopics): MapLayout =>
  new MapLayouter(records, map, countTopics).layout(null)

/**
 * Lays out a map again and again. Branches in which nothing has changed are kept, so that after a change only the way
 * from it to the root is set anew; the result is exactly that of a layout from nothing.
 *
 * Costs O(children on the way to the root) plus one pass over the visible topics; linear in the topics the first time.
 * Topics placed by hand and loose branches are compared with the boxes around them.
 */
export class MapLayouter {
  private readonly kept = new Map<string, { stamp: number; key: string; block: TopicBlock }>()
  private boxes = new Map<string, TopicBox>()
  private whole: MapLayouter | null = null

  constructor(
    private readonly records: Records,
    private readonly map: string,
    private readonly countTopics: CountTopics,
    /** Leaves out branches whose heads it refuses. */
    private readonly keeps: (topic: TopicRecord) => boolean = () => true,
  ) {}

  /** The whole map, or only the branch of one of its topics, with that topic where it stands on the whole map. */
  layout(only: string | null): MapLayout {
    const map = this.records.get('map', this.map)
    const placing = new Placing(this.records, this.countTopics)
    const look = inheritedOn(this.records, this.map)
    const root = (only && this.records.get('topic', only)) || this.records.root(this.map)
    if (map && root) {
      const block = this.blockOf(root, headContext(map, root, look))
      const middle = this.middleOf(only)
      const branch = placing.place(block, middle.x - block.width / 2, middle.y - block.height / 2)
      this.placeByHand(block, placing, branch)
    }
    if (map && !only)
      for (const head of this.records.looseBranches(this.map).filter(this.keeps)) {
        const block = this.blockOf(head, headContext(map, head, look))
        const branch = placing.place(block, head.place.x!, head.place.y!)
        placing.settle(branch)
        this.placeByHand(block, placing, null)
      }
    placing.frameLoose(this.map)
    placing.keepIdentity(this.boxes)
    this.boxes = placing.byTopic
    this.forgetGone(placing.byTopic)
    return { boxes: placing.boxes, byTopic: placing.byTopic, enclosures: placing.enclosures, bounds: placing.bounds() }
  }

  /** The middle of a topic on the whole map: places that were given by hand are seen from the root, also in a branch alone. */
  private middleOf(only: string | null): { x: number; y: number } {
    this.whole ??= only ? new MapLayouter(this.records, this.map, this.countTopics, this.keeps) : null
    const box = only && this.whole?.layout(null).byTopic.get(only)
    return box ? { x: box.x + box.width / 2, y: box.y + box.height / 2 } : { x: 0, y: 0 }
  }

  /** Topics that keep their places, and what they carry; then the arranged branches make room for them. */
  private placeByHand(block: TopicBlock, placing: Placing, around: Branch | null): void {
    const waiting = byHandBelow(block)
    const kept: Branch[] = []
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      const own = this.blockOf(next.topic, next.context)
      const branch = placing.place(own, next.topic.place.x!, next.topic.place.y!)
      if (around) moveClear(branch, [around.parts[0]!, ...kept])
      else placing.settle(branch)
      kept.push(branch)
      waiting.push(...byHandBelow(own))
    }
    if (around && kept.length > 0) makeRoom(around, kept, around.setting)
  }

  /** The block of a branch, from what is kept where nothing has changed. Iterative: depth is no limit. */
  private blockOf(head: TopicRecord, context: Context): TopicBlock {
    const known = this.known(head, context)
    if (known) return known
    const open: Opened[] = [this.open(head, context)]
    while (true) {
      const at = open.at(-1)!
      const next = at.children[at.blocks.length]
      if (next) {
        const below = this.known(next.topic, next.context)
        if (below) at.blocks.push(below)
        else open.push(this.open(next.topic, next.context))
        continue
      }
      const block = this.close(at)
      open.pop()
      const parent = open.at(-1)
      if (!parent) return block
      parent.blocks.push(block)
    }
  }

  private known(topic: TopicRecord, context: Context): TopicBlock | null {
    const kept = this.kept.get(topic.id)
    return kept && kept.stamp === this.records.stampOf(topic.id) && kept.key === keyOf(context) ? kept.block : null
  }

  private open(topic: TopicRecord, context: Context): Opened {
    const all = this.records.children(topic.id).filter(this.keeps)
    const shown = topic.folded && context.growth !== null ? [] : all
    const numbers = numbersOf(shown, context.below)
    const look = context.look.below(topic.branchLook)
    const inner = shown.map((child, i) => {
      const growth = growthOf(context.setting, child.place.side === 'left')
      return {
        topic: child,
        context: {
          level: context.level + 1,
          growth,
          setting: child.layout ?? settingBelow(context.setting, growth),
          spacing: context.spacing,
          number: numbers[i]!,
          below: numberingBelow(child, numbers[i]!, context.below),
          look,
        },
      }
    })
    return {
      topic,
      context,
      children: inner.filter((child) => !isPlacedByHand(child.topic)),
      byHand: inner.filter((child) => isPlacedByHand(child.topic)),
      hidden: shown.length < all.length ? countBelow(this.records, topic) : 0,
      blocks: [],
    }
  }

  private close({ topic, context, children, byHand, hidden, blocks }: Opened): TopicBlock {
    const made = faceOf(this.records, topic, context, hidden)
    const before = this.kept.get(topic.id)?.block.content.face
    const face = before && dequal(before, made) ? before : made
    const folded = hidden > 0
    const head = {
      content: { face, byHand, anyByHand: byHand.length > 0 || blocks.some(({ content }) => content.anyByHand) },
      width: face.width + (folded && foldsBeside(context.growth) ? FOLD_SPACE : 0),
      height: face.height + (folded && !foldsBeside(context.growth) ? FOLD_SPACE : 0),
      children: blocks,
      enclosed: enclosedAmong(
        this.records,
        children.map((child) => child.topic),
      ),
    }
    const block = setChildren(head, context.setting, context.level, context.spacing, {
      isLeft: (i) => children[i]!.topic.place.side === 'left',
      days: context.setting === 'time' ? children.map((child) => dayOf(child.topic)) : [],
    })
    if (isFlanked(context.setting, context.growth)) block.top -= ROUTE_SPACE
    this.kept.set(topic.id, { stamp: this.records.stampOf(topic.id), key: keyOf(context), block })
    return block
  }

  private forgetGone(shown: ReadonlyMap<string, TopicBox>): void {
    if (this.kept.size <= shown.size * 2 + 100) return
    for (const id of this.kept.keys()) if (!shown.has(id)) this.kept.delete(id)
  }
}

interface Opened {
  topic: TopicRecord
  context: Context
  children: { topic: TopicRecord; context: Context }[]
  byHand: { topic: TopicRecord; context: Context }[]
  hidden: number
  blocks: TopicBlock[]
}

/** A loose branch of a map that grows to both sides grows to the right. */
function headContext(map: MapRecord, head: TopicRecord, look: Inherited): Context {
  const isRoot = head.place.parent === null && head.place.x === null
  const numbering: Numbering | null = isRoot && map.numbering ? { scheme: map.numbering, depth: -1, above: '' } : null
  return {
    level: 0,
    growth: null,
    setting: head.layout ?? map.layout,
    spacing: map.spacing,
    number: head.number,
    below: numberingBelow(head, head.number, numbering),
    look,
  }
}

/** All topics placed by hand in a block, those nearest to the head last, for taking from the end. */
function byHandBelow(block: TopicBlock): { topic: TopicRecord; context: Context }[] {
  const found: { topic: TopicRecord; context: Context }[] = []
  const waiting = [block]
  for (let at = waiting.pop(); at; at = waiting.pop()) {
    if (!at.content.anyByHand) continue
    found.push(...at.content.byHand)
    for (let i = at.children.length - 1; i >= 0; i--) waiting.push(at.children[i]!)
  }
  return found.reverse()
}

const foldsBeside = (growth: Growth | null) => growth !== 'down' && growth !== 'up'

const DAY_MS = 86_400_000
const dayOf = ({ dates }: TopicRecord): number | null => (dates ? Date.parse(dates.start) / DAY_MS : null)

function faceOf(records: Records, topic: TopicRecord, context: Context, hidden: number): Face {
  const { level, number, growth, setting, look } = context
  const style = look.below(topic.branchLook).style(level, topic.look)
  const text = setTopicText(number === null ? topic.text : `${number} ${topic.text}`, style, topic.width)
  const signs = signsOf(records, topic)
  let signsWidth = signs.length > 0 ? 4 : 0
  for (const { count } of signs) signsWidth += SIGN_SIZE + (count > 1 ? SIGN_COUNT_WIDTH : 0)
  const contents = {
    style,
    text,
    picture: topic.picture,
    badges: topic.badges,
    excerpt: style.excerpt ? excerptOf(records, topic, text.width) : null,
    tags: topic.tags.length > 0 ? tagsOf(records, topic, text.width) : NO_TAGS,
    signsWidth,
    cornerWidth: topic.opensMap ? DOORWAY_WIDTH : 0,
  }
  return { topic, ...sizeOf(contents), level, number, signs, hidden, growth, setting, ...contents }
}

const NO_TAGS = { tags: [], width: 0, height: 0 }

function tagsOf(records: Records, topic: TopicRecord, width: number) {
  const named = topic.tags.flatMap((id) => {
    const tag = records.get('tag', id)
    return tag && !tag.trashed ? [{ name: tag.name, tone: tag.tone }] : []
  })
  return setTags(named, width, (name) => measureLine(name, TAGS.size, 'plain').width)
}

function excerptOf(records: Records, topic: TopicRecord, width: number) {
  const beginning = noteBeginning(records.get('note', topic.note)?.text ?? '', EXCERPT.letters)
  return beginning === '' ? null : setExcerpt(beginning, width)
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
  const signs: SignCount[] = topic.task ? [{ sign: topic.task, count: 1 }] : []
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

/** Enclosures among siblings, outer ones first. What stands between two enclosed siblings is inside as well. */
function enclosedAmong(records: Records, siblings: readonly TopicRecord[]): Enclosed[] {
  const found = new Map<string, Enclosed>()
  siblings.forEach((topic, i) => {
    for (const enclosure of records.enclosuresOf(topic.id)) {
      const { id } = enclosure
      const known = found.get(id)
      if (known) known.to = i
      else found.set(id, { enclosure: id, from: i, to: i, ...titleSize(enclosure) })
    }
  })
  return [...found.values()].sort((a, b) => b.to - b.from - (a.to - a.from) || (a.enclosure < b.enclosure ? -1 : 1))
}

export const enclosureTitleWidth = (title: string): number =>
  measureLine(title, ENCLOSURE_TITLE.size, 'plain-bold').width

/** Room for the sign of a note behind the title. */
const NOTE_ROOM = 20

const titleSize = ({ title, note }: { title: string; note: string }) =>
  title === '' && note.trim() === ''
    ? { title: 0, titleWidth: 0 }
    : { title: ENCLOSURE_TITLE.height, titleWidth: enclosureTitleWidth(title) + 16 + (note === '' ? 0 : NOTE_ROOM) }

/** Turns blocks into boxes on the map. */
class Placing {
  readonly boxes: TopicBox[] = []
  readonly byTopic = new Map<string, TopicBox>()
  readonly enclosures: EnclosureBox[] = []

  constructor(
    private readonly records: Records,
    private readonly countTopics: CountTopics,
  ) {}

  /** Boxes that are as they were before are the same objects, so that whoever shows them sees that at once. */
  keepIdentity(before: ReadonlyMap<string, TopicBox>): void {
    this.boxes.forEach((box, i) => {
      const known = before.get(box.topic.id)
      const same =
        known?.face === box.face &&
        known.x === box.x &&
        known.y === box.y &&
        known.hue === box.hue &&
        known.behind === box.behind
      if (same) {
        this.boxes[i] = known
        this.byTopic.set(box.topic.id, known)
      }
      const kept = this.boxes[i]!
      kept.parent = box.parent && (this.byTopic.get(box.parent.topic.id) ?? null)
    })
  }

  /** Puts the corner of a block's head at a point. */
  place(block: TopicBlock, x: number, y: number): Branch {
    const { topic } = block.content.face
    const parent = this.byTopic.get(topic.place.parent ?? '') ?? null
    const head: Part = { boxes: [], enclosures: [] }
    const branch: Branch = { setting: block.content.face.setting, parts: [head] }
    const box = this.add(block, x, y, parent, hueOf(parent, parent?.level === 0 ? this.orderIn(parent)(topic) : 0))
    head.boxes.push(box)
    const order = box.level === 0 ? this.orderIn(box) : () => 0
    block.children.forEach((child, i) => {
      const part: Part = { boxes: [], enclosures: [] }
      branch.parts.push(part)
      const hue = hueOf(box, order(child.content.face.topic))
      this.placeBelow(child, x + block.corners[2 * i]!, y + block.corners[2 * i + 1]!, box, hue, part)
    })
    // The frames around children move with the first child inside them.
    for (const frame of block.frames) {
      const inside = branch.parts.findIndex((part, i) => i > 0 && isInside(part.boxes[0]!, frame, x, y))
      this.frame(frame, x, y, branch.parts[Math.max(inside, 0)]!)
    }
    return branch
  }

  private placeBelow(head: TopicBlock, x: number, y: number, parent: TopicBox, hue: number, part: Part): void {
    const waiting = [{ block: head, x, y, parent }]
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      const box = this.add(next.block, next.x, next.y, next.parent, hue)
      part.boxes.push(box)
      const { children, corners, frames } = next.block
      for (const frame of frames) this.frame(frame, next.x, next.y, part)
      for (let i = children.length - 1; i >= 0; i--)
        waiting.push({
          block: children[i]!,
          x: next.x + corners[2 * i]!,
          y: next.y + corners[2 * i + 1]!,
          parent: box,
        })
    }
  }

  private orderIn(parent: TopicBox): (topic: TopicRecord) => number {
    const order = new Map(this.records.children(parent.topic.id).map((child, i) => [child.id, i]))
    return (topic) => order.get(topic.id) ?? 0
  }

  private add(block: TopicBlock, x: number, y: number, parent: TopicBox | null, hue: number): TopicBox {
    const { face } = block.content
    const { topic, growth, hidden } = face
    const behind = topic.opensMap ? this.countTopics(topic.opensMap) : null
    const box = new TopicBox(face, x, y, face.style.hue ?? hue, behind, parent)
    if (hidden > 0 && box.growsLeft) box.x += FOLD_SPACE
    else if (hidden > 0 && growth === 'up') box.y += FOLD_SPACE
    this.boxes.push(box)
    this.byTopic.set(topic.id, box)
    return box
  }

  private frame({ enclosure, left, top, right, bottom }: Frame, x: number, y: number, part: Part): void {
    const first = part.boxes[0]
    const tones = { family: first?.style.family ?? ('spruce' as const), hue: first?.hue ?? -1 }
    const box = { enclosure, x: x + left, y: y + top, width: right - left, height: bottom - top, ...tones }
    this.enclosures.push(box)
    part.enclosures.push(box)
  }

  /** Moves a loose branch clear of everything that already stands. */
  settle(branch: Branch): void {
    const own = new Set<TopicBox>(branch.parts.flatMap((part) => part.boxes))
    const standing: Part = { boxes: this.boxes.filter((box) => !own.has(box)), enclosures: [] }
    moveClear(branch, [standing])
  }

  /** Frames of enclosures around loose branches and topics placed by hand, which no row of children has set. */
  frameLoose(map: string): void {
    const framed = new Set(this.enclosures.map(({ enclosure }) => enclosure))
    for (const enclosure of this.records.all('enclosure')) {
      if (enclosure.trashed || framed.has(enclosure.id)) continue
      const heads = enclosure.topics.flatMap((topic) => this.byTopic.get(topic) ?? [])
      if (heads.length === 0 || heads[0]!.topic.place.map !== map) continue
      const inside = this.boxes.filter((box) => heads.some((head) => isBelow(box, head)))
      const { x, y, width, height } = boundsOf(inside)
      const { title } = titleSize(enclosure)
      const pad = 10
      this.enclosures.push({
        enclosure: enclosure.id,
        x: x - pad,
        y: y - pad - title,
        width: width + pad * 2,
        height: height + pad * 2 + title,
        family: heads[0]!.style.family,
        hue: heads[0]!.hue,
      })
    }
  }

  bounds(): Bounds {
    return boundsOf([...this.boxes, ...this.enclosures])
  }
}

function isBelow(box: TopicBox, head: TopicBox): boolean {
  for (let at: TopicBox | null = box; at; at = at.parent) if (at.topic.id === head.topic.id) return true
  return false
}

const isInside = (box: TopicBox, frame: Frame, x: number, y: number): boolean =>
  box.x >= x + frame.left && box.x < x + frame.right && box.y >= y + frame.top && box.y < y + frame.bottom

const hueOf = (parent: TopicBox | null, order: number): number =>
  parent ? (parent.level === 0 ? order % HUES : parent.hue) : -1
