import { dequal } from 'dequal/lite'
import { type Inherited, inheritedOn, LEVELS } from '../look/styles'
import { crosslinkIsQuiet, incomingAt } from '../network/crosslinks'
import type { MapRecord } from '../records/map'
import { isRoot, type Point, pointOf, sideOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { type Fonts, measureLine } from '../text/measure'
import { noteBeginning } from '../text/note-beginning'
import { type Numbering, numberingBelow, numbersOf } from '../tree/numbering'
import { type Block, type Enclosed, type Growth, Leaf } from './block'
import {
  type Bounds,
  type Branch,
  boundsOf,
  type Face,
  type LayoutContext,
  type MapLayout,
  type SignCount,
  type TopicBox,
} from './boxes'
import { titleSize } from './enclosure-title'
import { growthOf, isFlanked, type Setting, setChildren, settingBelow } from './kinds/set-children'
import { Lengths } from './lengths'
import { makeRoom, moveClear } from './make-room'
import {
  keepsPoint,
  type Occurrence,
  occurrenceAtHead,
  occurrenceBelow,
  ownChildren,
  type ShownChildren,
} from './occurrence'
import { BoxesByKey, FOLD_SPACE, type Placed, Placing } from './placing'
import { EXCERPT, setExcerpt, setTags, setTopicText, sizeOf, TAGS } from './topic-box'

export const SIGN_SIZE = 16
export const SIGN_COUNT_WIDTH = 8
/** Width of the turned-down corner with its number. */
export const DOORWAY_WIDTH = 34
/** Room above a branch over which its connector comes. */
export const ROUTE_SPACE = 10

/** What a topic's block depends on besides what is in the branch. */
interface BlockContext {
  level: number
  growth: Growth | null
  setting: Setting
  spacing: number
  number: string | null
  below: Numbering | null
  /** The looks that the topic inherits. */
  look: Inherited
}

/** A branch that is to be set. */
interface Unset {
  at: Occurrence
  context: BlockContext
}

/** A branch that keeps the place it was given, with the key of what it hangs on. */
interface ByHand extends Unset {
  above: string
}

/** What a block carries besides: the children that keep places of their own. */
interface Content extends Placed {
  byHand: readonly ByHand[]
  /** Whether it or a block below has such children. */
  anyByHand: boolean
}
type TopicBlock = Block<Content>

/** No branch has this stamp. */
const GONE = -1

const ORIGIN: Point = { x: 0, y: 0 }

const contextKey = ({ level, growth, setting, spacing, number, below, look }: BlockContext): string =>
  `${Math.min(level, LEVELS)} ${look.id} ${growth} ${setting} ${spacing} ${number} ${below ? `${below.scheme} ${below.above}` : ''}`

/** Lays out a map once. A pure function of the records, the same on every machine; see `MapLayouter`. */
export const layoutMap = (records: Records, map: string, context: LayoutContext): MapLayout =>
  new MapLayouter(records, map, context).layout(null)

/**
 * Lays out a map again and again. Branches in which nothing has changed are kept, so that after a change only the way
 * from it to the root is set anew; the result is exactly that of a layout from nothing.
 *
 * Costs O(children on the way to the root) plus one pass over the visible topics; linear in the topics the first time.
 * Topics placed by hand and loose branches are compared with the boxes around them.
 */
export class MapLayouter {
  private readonly kept = new Map<string, { stamp: number; context: string; block: TopicBlock }>()
  private boxes: readonly TopicBox[] = []
  private lengths = new Lengths(0)
  /** How many numbers are held before branches are set with new ones. */
  private mostLengths = 0
  private whole: MapLayouter | null = null

  constructor(
    private readonly records: Records,
    private readonly map: string,
    private readonly context: LayoutContext,
    /** Leaves out branches whose heads it refuses. */
    private readonly keeps: (topic: TopicRecord) => boolean = () => true,
    /** What is shown below each topic. */
    private readonly shown: ShownChildren = ownChildren(records),
  ) {}

  /** The whole map, or only the branch of one of its topics, with that topic where it stands on the whole map. */
  layout(only: string | null): MapLayout {
    const map = this.records.get('map', this.map)
    const root = (only && this.records.get('topic', only)) || this.records.root(this.map)
    if (!map || !root)
      return this.finish(new Placing(this.records, this.context.countTopics, [], false, this.lengths), null)
    this.forgetLengths()
    const look = inheritedOn(this.records, this.map)
    const block = this.blockOf({ at: occurrenceAtHead(root), context: headContext(map, root, look) })
    const loose = only ? [] : this.records.looseBranches(this.map).filter(this.keeps)
    const mayMove = block.content.anyByHand || loose.length > 0
    const placing = new Placing(this.records, this.context.countTopics, this.boxes, mayMove, this.lengths)
    const middle = this.middleOf(only)
    const corner = { x: middle.x - block.width / 2, y: middle.y - block.height / 2 }
    const branch = placing.place(block, corner, null)
    this.placeByHand(block, placing, branch)
    for (const head of loose) {
      const own = this.blockOf({ at: occurrenceAtHead(head), context: headContext(map, head, look) })
      placing.settle(placing.place(own, pointOf(head) ?? ORIGIN, null))
      this.placeByHand(own, placing, null)
    }
    placing.keepIdentity()
    this.mostLengths ||= this.lengths.used * 4 + 10_000
    const { left, top, right, bottom } = block
    const reach = { x: corner.x + left, y: corner.y + top, width: right - left, height: bottom - top }
    return this.finish(placing, mayMove ? null : reach)
  }

  /** Begins with new numbers where the most are of branches that are gone; all branches are set anew then, once. */
  private forgetLengths(): void {
    if (this.lengths.used >= this.mostLengths) {
      this.lengths = new Lengths(Math.max(this.boxes.length, 64))
      for (const kept of this.kept.values()) kept.stamp = GONE
      this.mostLengths = 0
    }
  }

  /** `reach` is how far the boxes reach, where that is known. */
  private finish(placing: Placing, reach: Bounds | null): MapLayout {
    const { boxes, enclosures } = placing
    const byKey = new BoxesByKey(
      boxes,
      (key) => this.kept.get(key)?.block.content.box ?? null,
      () => this.boxes === boxes,
    )
    this.boxes = boxes
    placing.frameLoose(this.map, byKey)
    if (this.kept.size > boxes.length * 2 + 100)
      for (const key of this.kept.keys()) if (!byKey.get(key)) this.kept.delete(key)
    return { boxes, byKey, enclosures, bounds: boundsOf([...(reach ? [reach] : boxes), ...enclosures]) }
  }

  /** The middle of a topic on the whole map: places that were given by hand are seen from the root, also in a branch alone. */
  private middleOf(only: string | null): { x: number; y: number } {
    this.whole ??= only ? new MapLayouter(this.records, this.map, this.context, this.keeps, this.shown) : null
    const box = only && this.whole?.layout(null).byKey.get(only)
    return box ? { x: box.x + box.width / 2, y: box.y + box.height / 2 } : { x: 0, y: 0 }
  }

  /** Topics that keep their places, and what they carry; then the arranged branches make room for them. */
  private placeByHand(block: TopicBlock, placing: Placing, around: Branch | null): void {
    const waiting = byHandBelow(block)
    const kept: Branch[] = []
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      const own = this.blockOf(next)
      const branch = placing.place(own, pointOf(next.at.topic) ?? ORIGIN, next.above)
      if (around) moveClear(branch, [around.parts[0]!, ...kept])
      else placing.settle(branch)
      kept.push(branch)
      waiting.push(...byHandBelow(own))
    }
    if (around && kept.length > 0) makeRoom(around, kept, around.setting)
  }

  /** The block of a branch, from what is kept where nothing has changed. Iterative: depth is no limit. */
  private blockOf(head: Unset): TopicBlock {
    const known = this.known(head)
    if (known) return known
    const open: Opened[] = [this.open(head)]
    while (true) {
      const opened = open.at(-1)!
      const next = opened.children[opened.done]
      if (next) {
        const below = this.known(next)
        if (below) opened.blocks[opened.done++] = below
        else open.push(this.open(next))
        continue
      }
      const block = this.close(opened)
      open.pop()
      const parent = open.at(-1)
      if (!parent) return block
      parent.blocks[parent.done++] = block
    }
  }

  private known({ at, context }: Unset): TopicBlock | null {
    const kept = this.kept.get(at.key)
    return kept && kept.stamp === this.shown.stamp(at) && kept.context === contextKey(context) ? kept.block : null
  }

  private open({ at, context }: Unset): Opened {
    const { topic } = at
    const all = this.shown.below(at)
    // Numbers are those of the whole map, whatever of it is shown.
    const numbers = numbersOf(all, context.below)
    const isOpen = !topic.folded || context.growth === null
    const look = context.look.below(topic.branchLook)
    const inner = all.flatMap((child, i) => {
      if (!isOpen || !this.keeps(child)) return []
      const growth = growthOf(context.setting, sideOf(child) === 'left')
      return {
        at: occurrenceBelow(at, child),
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
    const children = inner.filter((child) => !keepsPoint(child.at))
    return {
      at,
      context,
      children,
      byHand: inner.filter((child) => keepsPoint(child.at)).map((child) => ({ ...child, above: at.key })),
      hidden: isOpen || all.length === 0 ? 0 : this.countBelow(at),
      blocks: new Array<TopicBlock>(children.length),
      done: 0,
    }
  }

  private close({ at, context, children, byHand, hidden, blocks }: Opened): TopicBlock {
    const { topic, key } = at
    const made = faceOf(this.records, this.context.fonts, at, context, hidden)
    const before = this.kept.get(key)?.block.content
    const face = before && dequal(before.face, made) ? before.face : made
    const folded = hidden > 0
    const enclosed = enclosedAmong(
      this.records,
      this.context.fonts,
      children.map((child) => child.at.topic),
    )
    const content: Content = {
      face,
      byHand,
      anyByHand: byHand.length > 0 || blocks.some(({ content }) => content.anyByHand),
      size: blocks.reduce((size, { content }) => size + content.size, 1),
      plain: enclosed.length === 0 && !topic.opensMap && blocks.every(({ content }) => content.plain),
      box: before?.box ?? null,
      hue: null,
    }
    const width = face.width + (folded && foldsBeside(context.growth) ? FOLD_SPACE : 0)
    const height = face.height + (folded && !foldsBeside(context.growth) ? FOLD_SPACE : 0)
    const { setting, level, spacing } = context
    const block =
      blocks.length === 0
        ? new Leaf(content, this.lengths, width, height)
        : setChildren(
            { content, lengths: this.lengths, width, height, children: blocks, enclosed },
            setting,
            level,
            spacing,
            {
              isLeft: (i) => sideOf(children[i]!.at.topic) === 'left',
              days: setting === 'time' ? children.map((child) => dayOf(child.at.topic)) : [],
            },
          )
    if (isFlanked(context.setting, context.growth)) block.top -= ROUTE_SPACE
    this.kept.set(key, { stamp: this.shown.stamp(at), context: contextKey(context), block })
    return block
  }

  private countBelow(head: Occurrence): number {
    let count = -1
    const waiting = [head]
    for (let at = waiting.pop(); at; at = waiting.pop()) {
      count++
      for (const child of this.shown.below(at)) waiting.push(occurrenceBelow(at, child))
    }
    return count
  }
}

interface Opened extends Unset {
  children: Unset[]
  byHand: ByHand[]
  hidden: number
  /** Those of its children, as far as they are done. */
  blocks: TopicBlock[]
  done: number
}

/** A loose branch of a map that grows to both sides grows to the right. */
function headContext(map: MapRecord, head: TopicRecord, look: Inherited): BlockContext {
  const numbering: Numbering | null = isRoot(head) && map.numbering ? { scheme: map.numbering, above: '' } : null
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
function byHandBelow(block: TopicBlock): ByHand[] {
  const found: ByHand[] = []
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

function faceOf(records: Records, fonts: Fonts, at: Occurrence, context: BlockContext, hidden: number): Face {
  const { topic, key } = at
  const { level, number, growth, setting, look } = context
  const style = look.below(topic.branchLook).style(level, topic.look)
  const text = setTopicText(fonts, number === null ? topic.text : `${number} ${topic.text}`, style, topic.width)
  const signs = signsOf(records, topic)
  let signsWidth = signs.length > 0 ? 4 : 0
  for (const { count } of signs) signsWidth += SIGN_SIZE + (count > 1 ? SIGN_COUNT_WIDTH : 0)
  const contents = {
    style,
    text,
    picture: topic.picture,
    badges: topic.badges,
    excerpt: style.excerpt ? excerptOf(records, fonts, topic, text.width) : null,
    tags: topic.tags.length > 0 ? tagsOf(records, fonts, topic, text.width) : NO_TAGS,
    signsWidth,
    cornerWidth: topic.opensMap ? DOORWAY_WIDTH : 0,
  }
  return {
    topic,
    key,
    byHand: keepsPoint(at),
    ...sizeOf(contents),
    level,
    number,
    signs,
    hidden,
    growth,
    setting,
    ...contents,
  }
}

const NO_TAGS = { tags: [], width: 0, height: 0 }

function tagsOf(records: Records, fonts: Fonts, topic: TopicRecord, width: number) {
  const named = topic.tags.flatMap((id) => {
    const tag = records.get('tag', id)
    return tag && !tag.trashed ? [{ name: tag.name, tone: tag.tone }] : []
  })
  return setTags(named, width, (name) => measureLine(fonts, name, TAGS.size, 'plain').width)
}

function excerptOf(records: Records, fonts: Fonts, topic: TopicRecord, width: number) {
  const beginning = noteBeginning(records.get('note', topic.note)?.text ?? '', EXCERPT.letters)
  return beginning === '' ? null : setExcerpt(fonts, beginning, width)
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
  for (const link of incomingAt(records, topic)) if (crosslinkIsQuiet(records, link)) quiet++
  if (quiet > 0) signs.push({ sign: 'link', count: quiet })
  return signs
}

/** Enclosures among siblings, outer ones first. What stands between two enclosed siblings is inside as well. */
function enclosedAmong(records: Records, fonts: Fonts, siblings: readonly TopicRecord[]): Enclosed[] {
  const found = new Map<string, Enclosed>()
  siblings.forEach((topic, i) => {
    for (const enclosure of records.enclosuresOf(topic.id)) {
      const { id } = enclosure
      const known = found.get(id)
      if (known) known.to = i
      else found.set(id, { enclosure: id, from: i, to: i, ...titleSize(fonts, enclosure) })
    }
  })
  return [...found.values()].sort((a, b) => b.to - b.from - (a.to - a.from) || (a.enclosure < b.enclosure ? -1 : 1))
}
