import type { Point } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import type { Block, Frame } from './block'
import {
  type BoxLookup,
  type Branch,
  boundsOf,
  type CountTopics,
  type EnclosureBox,
  type Face,
  type Part,
  TopicBox,
} from './boxes'
import { titleHeight } from './enclosure-title'
import type { Lengths } from './lengths'
import { moveClear } from './make-room'
import { isAtHome } from './occurrence'

const HUES = 8
/** Room beside a folded topic for the number of topics that it hides. */
export const FOLD_SPACE = 32

/** What a block carries for being placed. */
export interface Placed {
  face: Face
  /** Topics in the block, its head included. */
  size: number
  /** Whether nothing in the block is drawn from outside of it: neither frames nor numbers behind doorways. */
  plain: boolean
  /** Its box as it was made last, for this block or for the one before it. */
  box: TopicBox | null
  /** The hue that this very block was last placed with; null before that. */
  hue: number | null
}

/** A block with where its head stands. */
interface At {
  block: Block<Placed>
  x: number
  y: number
  parent: TopicBox | null
  hue: number
}

/**
 * Turns blocks into boxes on the map. Boxes that are as they were before are the same objects, so that whoever shows them
 * sees that at once; and where nothing moves afterwards, branches that stand where they stood are taken over as they are.
 */
export class Placing {
  readonly boxes: TopicBox[] = []
  readonly enclosures: EnclosureBox[] = []
  /** Where boxes may move: what each was made for, and the boxes by key. */
  private readonly made: Placed[] = []
  private readonly shown = new Map<string, TopicBox>()

  constructor(
    private readonly records: Records,
    private readonly countTopics: CountTopics,
    /** The boxes of the layout before. */
    private readonly before: readonly TopicBox[],
    /** Whether boxes make room for others once they are placed. */
    private readonly mayMove: boolean,
    private readonly lengths: Lengths,
  ) {}

  /** Puts the corner of a block's head at a point; it hangs on the box with the key `above`. */
  place(block: Block<Placed>, { x, y }: Point, above: string | null): Branch {
    const { topic, setting } = block.content.face
    const parent = (above !== null && this.shown.get(above)) || null
    const head: Part = { boxes: [], enclosures: [] }
    const branch: Branch = { setting, parts: [head] }
    const hue = hueOf(parent, parent?.level === 0 ? this.orderIn(parent)(topic, 0) : 0)
    const box = this.add({ block, x, y, parent, hue }, head)
    const order = box.level === 0 ? this.orderIn(box) : () => 0
    block.children.forEach((child, i) => {
      const part: Part = { boxes: [], enclosures: [] }
      branch.parts.push(part)
      const at = {
        x: x + this.lengths.numbers[block.corners + 2 * i]!,
        y: y + this.lengths.numbers[block.corners + 2 * i + 1]!,
      }
      this.placeBelow({ block: child, ...at, parent: box, hue: hueOf(box, order(child.content.face.topic, i)) }, part)
    })
    // The frames around children move with the first child inside them.
    for (const frame of block.frames) {
      const inside = branch.parts.findIndex((part, i) => i > 0 && isInside(part.boxes[0]!, frame, x, y))
      this.frame(frame, box, x, y, branch.parts[Math.max(inside, 0)]!)
    }
    return branch
  }

  private placeBelow(head: At, part: Part): void {
    const waiting = [head]
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      if (this.takeOver(next, part)) continue
      const box = this.add(next, part)
      const { children, corners, frames } = next.block
      for (const frame of frames) this.frame(frame, box, next.x, next.y, part)
      for (let i = children.length - 1; i >= 0; i--)
        waiting.push({
          block: children[i]!,
          x: next.x + this.lengths.numbers[corners + 2 * i]!,
          y: next.y + this.lengths.numbers[corners + 2 * i + 1]!,
          parent: box,
          hue: head.hue,
        })
    }
  }

  /** Takes over all boxes of a block that stands where it stood; they follow one another in the layout before. */
  private takeOver({ block, x, y, parent, hue }: At, part: Part): boolean {
    const { box, size, plain, hue: before, face } = block.content
    if (this.mayMove || !box || !plain || before !== hue || face.hidden > 0) return false
    if (this.before[box.index] !== box || box.x !== x || box.y !== y) return false
    box.parent = parent
    parent?.hang(box)
    if (part.boxes.length === 0) part.boxes.push(box)
    const start = box.index
    for (let i = start; i < start + size; i++) this.push(this.before[i]!)
    return true
  }

  private push(box: TopicBox): void {
    box.index = this.boxes.length
    this.boxes.push(box)
  }

  private add({ block, x, y, parent, hue }: At, part: Part): TopicBox {
    const { content } = block
    const { face } = content
    const { topic, growth, hidden } = face
    const behind = topic.opensMap ? this.countTopics(topic.opensMap) : null
    const made = new TopicBox(face, x, y, face.style.hue ?? hue, behind, parent)
    if (hidden > 0 && made.growsLeft) made.x += FOLD_SPACE
    else if (hidden > 0 && growth === 'up') made.y += FOLD_SPACE
    const box = this.mayMove ? made : latest(content, made)
    box.clearBelow()
    parent?.hang(box)
    this.push(box)
    if (this.mayMove || part.boxes.length === 0) part.boxes.push(box)
    if (this.mayMove) {
      this.made.push(content)
      this.shown.set(face.key, box)
    }
    content.hue = this.mayMove ? null : hue
    return box
  }

  /** Where boxes may have moved: those that stand as they did before are the objects from before. */
  keepIdentity(): void {
    if (!this.mayMove) return
    const kept = new Map<TopicBox, TopicBox>()
    this.boxes.forEach((box, i) => {
      const same = latest(this.made[i]!, box)
      same.parent = box.parent && (kept.get(box.parent) ?? null)
      same.clearBelow()
      same.parent?.hang(same)
      same.index = i
      this.boxes[i] = same
      kept.set(box, same)
    })
  }

  /** Which child of its parent a topic was, in the order in which they were made: what comes between others leaves their hues. */
  private orderIn(parent: TopicBox): (topic: TopicRecord, shownAs: number) => number {
    const ids = this.records.childrenWithTrashed(parent.topic.id).map(({ id }) => id)
    const order = new Map(ids.sort().map((id, i) => [id, i]))
    return (topic, shownAs) => order.get(topic.id) ?? shownAs
  }

  private frame(
    { enclosure, left, top, right, bottom }: Frame,
    head: TopicBox,
    x: number,
    y: number,
    part: Part,
  ): void {
    const first = part.boxes[0]
    const tones = { family: first?.style.family ?? ('spruce' as const), hue: first?.hue ?? -1 }
    const key = isAtHome(head) ? enclosure : `${head.key}>${enclosure}`
    const box = { enclosure, key, x: x + left, y: y + top, width: right - left, height: bottom - top, ...tones }
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
  frameLoose(map: string, byKey: BoxLookup): void {
    const framed = new Set(this.enclosures.map(({ key }) => key))
    for (const enclosure of this.records.all('enclosure')) {
      if (enclosure.trashed || framed.has(enclosure.id)) continue
      const heads = enclosure.topics.flatMap((topic) => byKey.get(topic) ?? [])
      if (heads.length === 0 || heads[0]!.topic.place.map !== map) continue
      const inside = this.boxes.filter((box) => heads.some((head) => isBelow(box, head)))
      const { x, y, width, height } = boundsOf(inside)
      const title = titleHeight(enclosure)
      const pad = 10
      this.enclosures.push({
        enclosure: enclosure.id,
        key: enclosure.id,
        x: x - pad,
        y: y - pad - title,
        width: width + pad * 2,
        height: height + pad * 2 + title,
        family: heads[0]!.style.family,
        hue: heads[0]!.hue,
      })
    }
  }
}

/** The box from before where the new one says the same, else the new one, from now on. */
function latest(content: Placed, made: TopicBox): TopicBox {
  const { box } = content
  const same =
    box?.face === made.face &&
    box.x === made.x &&
    box.y === made.y &&
    box.hue === made.hue &&
    box.behind === made.behind
  if (!same) {
    content.box = made
    return made
  }
  box.parent = made.parent
  return box
}

function isBelow(box: TopicBox, head: TopicBox): boolean {
  for (let at: TopicBox | null = box; at; at = at.parent) if (at === head) return true
  return false
}

const isInside = (box: TopicBox, frame: Frame, x: number, y: number): boolean =>
  box.x >= x + frame.left && box.x < x + frame.right && box.y >= y + frame.top && box.y < y + frame.bottom

const hueOf = (parent: TopicBox | null, order: number): number =>
  parent ? (parent.level === 0 ? order % HUES : parent.hue) : -1

/**
 * The boxes of a layout by key. For the latest layout of a map that is looked up in what its layouter keeps, so that
 * nothing has to be filled with every change; for an earlier one a table is made when it is asked for.
 */
export class BoxesByKey implements BoxLookup {
  private table: Map<string, TopicBox> | null = null
  private elsewhere: Map<string, TopicBox[]> | null = null

  constructor(
    private readonly boxes: readonly TopicBox[],
    private readonly keptBox: (key: string) => TopicBox | null,
    private readonly isLatest: () => boolean,
  ) {}

  get(key: string): TopicBox | undefined {
    if (this.isLatest()) {
      const box = this.keptBox(key)
      return box && this.boxes[box.index] === box ? box : undefined
    }
    this.table ??= new Map(this.boxes.map((box) => [box.key, box]))
    return this.table.get(key)
  }

  showing(topic: string): readonly TopicBox[] {
    const own = this.get(topic)
    const others = this.shownElsewhere().get(topic) ?? []
    return own ? [own, ...others] : others
  }

  of(topic: string): TopicBox | undefined {
    return this.get(topic) ?? this.shownElsewhere().get(topic)?.[0]
  }

  private shownElsewhere(): ReadonlyMap<string, readonly TopicBox[]> {
    if (!this.elsewhere) {
      this.elsewhere = new Map()
      for (const box of this.boxes)
        if (!isAtHome(box)) {
          const known = this.elsewhere.get(box.topic.id)
          if (known) known.push(box)
          else this.elsewhere.set(box.topic.id, [box])
        }
    }
    return this.elsewhere
  }
}
