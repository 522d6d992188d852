import { dequal } from 'dequal/lite'
import { type Inherited, inheritedOn, LEVELS } from '../look/styles'
import { openThreads } from '../network/comments'
import { crosslinkIsQuiet, incomingAt } from '../network/crosslinks'
import type { MapRecord } from '../records/map'
import { isRoot, type Point, pointOf, sideOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { dayNumber } from '../text/days'
import { type Fonts, measureLine } from '../text/measure'
import { noteBeginning } from '../text/note-beginning'
import { type Numbering, numberingBelow, numbersOf } from '../tree/numbering'
import { type Block, type Enclosed, type Growth, Leaf } from './block'
import { boundsOf, type Face, type LayoutContext, type MapLayout, type SignCount, type TopicBox } from './boxes'
import { titleSize } from './enclosure-title'
import { growthOf, isFlanked, type Setting, setChildren, settingBelow } from './kinds/set-children'
import { Lengths } from './lengths'
import { makeRoom, Standing } from './make-room'
import {
  keepsPoint,
  type Occurrence,
  occurrenceAtHead,
  occurrenceBelow,
  ownChildren,
  type ShownChildren,
} from './occurrence'
import { BoxesByKey, type Placed, Placing } from './placing'
import { boxInBlock, FOLD_SPACE, Solid } from './solid'
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

/** Numbers of branches that are gone, which are kept whatever the size of the map: 4 MB. */
const MOST_KEPT = 500_000

/** No branch has this stamp. */
const GONE = -1

const ORIGIN: Point = { x: 0, y: 0 }

/** Whether a block is the same in both, if nothing in its branch has changed. */
const isSameContext = (a: BlockContext, b: BlockContext): boolean =>
  Math.min(a.level, LEVELS) === Math.min(b.level, LEVELS) &&
  a.look.id === b.look.id &&
  a.growth === b.growth &&
  a.setting === b.setting &&
  a.spacing === b.spacing &&
  a.number === b.number &&
  a.below?.scheme === b.below?.scheme &&
  a.below?.above === b.below?.above

/** Lays out a map once. A pure function of the records, the same on every machine; see `MapLayouter`. */
export const layoutMap = (records: Records, map: string, context: LayoutContext): MapLayout =>
  new MapLayouter(records, map, context).layout(null)

/**
 * Lays out a map again and again. Branches in which nothing has changed are kept, so that after a change only the way
 * from it to the root is set anew; the result is exactly that of a layout from nothing.
 *
 * Costs O(children on the way to the root) plus one pass over the visible topics; linear in the topics the first time.
 * Topics placed by hand and loose branches are compared with the boxes of branches that reach over them.
 */
export class MapLayouter {
  private readonly kept = new Map<string, { stamp: number; context: BlockContext; block: TopicBlock }>()
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
    if (!map || !root) return this.finish([])
    this.forgetLengths()
    const look = inheritedOn(this.records, this.map)
    const branchOf = (topic: TopicRecord) =>
      this.blockOf({ at: occurrenceAtHead(topic), context: headContext(map, topic, look) })
    const block = branchOf(root)
    const middle = this.middleOf(only)
    const corner = { x: middle.x - block.width / 2, y: middle.y - block.height / 2 }
    const stood = this.aroundRoot(block, corner)
    const loose = only ? [] : this.records.looseBranches(this.map).filter(this.keeps)
    if (loose.length > 0) {
      const standing = new Standing(stood.flatMap(solidsOf))
      for (const topic of loose) {
        const solid = this.solid(branchOf(topic), pointOf(topic) ?? ORIGIN)
        standing.settle(solid)
        stood.push({ solid, above: null, moved: [] }, ...this.byHand(solid.block, standing))
      }
    }
    this.mostLengths ||= this.lengths.used * 8 + MOST_KEPT
    return this.finish(stood)
  }

  private solid(block: TopicBlock, { x, y }: Point): Solid<TopicBlock> {
    return new Solid(block, this.lengths, x, y)
  }

  /** The branch of the root, with the topics in it that keep their places; what was arranged makes room for these. */
  private aroundRoot(block: TopicBlock, corner: Point): Stood[] {
    const { numbers } = this.lengths
    const head = new Solid(block, this.lengths, corner.x, corner.y, true)
    const branches = block.children.map((child, i) => {
      const at = block.corners + 2 * i
      return this.solid(child, { x: corner.x + numbers[at]!, y: corner.y + numbers[at + 1]! })
    })
    const byHand = this.byHand(block, new Standing([head]))
    if (byHand.length > 0)
      makeRoom(
        head,
        branches,
        byHand.map(({ solid }) => solid),
        block.content.face.setting,
      )
    return [{ solid: head, above: null, moved: branches }, ...byHand]
  }

  /** The topics in a block that keep their places, and in what they carry, clear of what stands. */
  private byHand(block: TopicBlock, standing: Standing): Stood[] {
    const found: Stood[] = []
    const waiting = byHandBelow(block)
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      const block = this.blockOf(next)
      const { x, y } = pointOf(next.at.topic) ?? ORIGIN
      const inside = boxInBlock(block.content.face)
      const solid = this.solid(block, { x: x - inside.x, y: y - inside.y })
      standing.settle(solid, true)
      found.push({ solid, above: next.above, moved: [] })
      waiting.push(...byHandBelow(solid.block))
    }
    return found
  }

  /** Begins with new numbers where the most are of branches that are gone; all branches are set anew then, once. */
  private forgetLengths(): void {
    if (this.lengths.used >= this.mostLengths) {
      this.lengths = new Lengths(Math.max(this.boxes.length, 64))
      for (const kept of this.kept.values()) kept.stamp = GONE
      this.mostLengths = 0
    }
  }

  /** Makes the boxes of what stands, each where it stands in the end. */
  private finish(stood: readonly Stood[]): MapLayout {
    const placing = new Placing(this.records, this.context.countTopics, this.boxes, this.lengths)
    for (const { solid, above, moved } of stood) {
      const parent = above === null ? null : (this.kept.get(above)?.block.content.box ?? null)
      placing.place(solid.block, solid, parent, moved)
    }
    const { boxes, enclosures } = placing
    const byKey = new BoxesByKey(
      boxes,
      (key) => this.kept.get(key)?.block.content.box ?? null,
      () => this.boxes === boxes,
    )
    this.boxes = boxes
    placing.frameOthers(
      stood.slice(1).map(({ solid }) => solid.block.content.face.topic),
      byKey,
    )
    if (this.kept.size > boxes.length * 2 + 100)
      for (const key of this.kept.keys()) if (!byKey.get(key)) this.kept.delete(key)
    const bounds = boundsOf([...stood.flatMap(solidsOf).map(({ reach }) => reach), ...enclosures])
    return { boxes, byKey, enclosures, bounds }
  }

  /** The middle of a topic on the whole map: places that were given by hand are seen from the root, also in a branch alone. */
  private middleOf(only: string | null): { x: number; y: number } {
    this.whole ??= only ? new MapLayouter(this.records, this.map, this.context, this.keeps, this.shown) : null
    const box = only && this.whole?.layout(null).byKey.get(only)
    return box ? { x: box.x + box.width / 2, y: box.y + box.height / 2 } : { x: 0, y: 0 }
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
    return kept && kept.stamp === this.shown.stamp(at) && isSameContext(kept.context, context) ? kept.block : null
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
    const gathered = this.shown.isGathered?.(at) ?? false
    const made = faceOf(this.records, this.context.fonts, at, context, { hidden, gathered })
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
      plain:
        enclosed.length === 0 && !topic.opensMap && byHand.length === 0 && blocks.every(({ content }) => content.plain),
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
    this.kept.set(key, { stamp: this.shown.stamp(at), context, block })
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

/** A branch at its final place, below the box with the key `above`; the branches at the root may each have been moved. */
interface Stood {
  solid: Solid<TopicBlock>
  above: string | null
  moved: readonly Solid<TopicBlock>[]
}

const solidsOf = ({ solid, moved }: Stood): Solid<TopicBlock>[] => [solid, ...moved]

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

const dayOf = ({ dates }: TopicRecord): number | null => (dates ? dayNumber(dates.start) : null)

function faceOf(
  records: Records,
  fonts: Fonts,
  at: Occurrence,
  context: BlockContext,
  rest: Pick<Face, 'hidden' | 'gathered'>,
): Face {
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
    ...rest,
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
  const open = openThreads(records, topic.id).length
  if (open > 0) signs.push({ sign: 'comment', count: open })
  if (topic.gathers) signs.push({ sign: 'gathers', count: 1 })
  return signs
}

/** Enclosures among siblings, outer ones first. What stands between two enclosed siblings is inside as well. */
function enclosedAmong(records: Records, fonts: Fonts, siblings: readonly TopicRecord[]): Enclosed[] {
  const found = new Map<string, Enclosed>()
  if (records.count('enclosure') === 0) return []
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
