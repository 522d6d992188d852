import type { Point } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import type { Block, Frame } from './block'
import { type BoxLookup, type CountTopics, type EnclosureBox, type Face, TopicBox } from './boxes'
import { titleHeight } from './enclosure-title'
import { framesAround } from './free-frames'
import type { Lengths } from './lengths'
import { isAtHome } from './occurrence'
import { boxInBlock } from './solid'

const HUES = 8

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
interface At extends Point {
  block: Block<Placed>
  parent: TopicBox | null
  hue: number
}

/**
 * Turns blocks into boxes on the map, where they stand in the end. Boxes that are as they were before are the same objects,
 * so that whoever shows them sees that at once; and branches that stand where they stood are taken over as they are.
 */
export class Placing {
  readonly boxes: TopicBox[] = []
  readonly enclosures: EnclosureBox[] = []
  private readonly orders = new Map<TopicBox, ReadonlyMap<string, number>>()

  constructor(
    private readonly records: Records,
    private readonly countTopics: CountTopics,
    /** The boxes of the layout before. */
    private readonly before: readonly TopicBox[],
    private readonly lengths: Lengths,
  ) {}

  /**
   * Places a branch with its head's corner at a point, below a box or, at its head, below nothing. Its children stand
   * where they were set, or where `moved` says.
   */
  place(block: Block<Placed>, at: Point, parent: TopicBox | null, moved: readonly Point[]): void {
    const { topic } = block.content.face
    const hue = hueOf(parent, parent?.level === 0 ? this.orderIn(parent)(topic, 0) : 0)
    const box = this.add({ block, x: at.x, y: at.y, parent, hue })
    const order = box.level === 0 ? this.orderIn(box) : () => 0
    const { numbers } = this.lengths
    const set = block.children.map((_, i): Point => {
      const corner = block.corners + 2 * i
      return { x: at.x + numbers[corner]!, y: at.y + numbers[corner + 1]! }
    })
    block.children.forEach((child, i) => {
      const { x, y } = moved[i] ?? set[i]!
      this.placeBelow({ block: child, x, y, parent: box, hue: hueOf(box, order(child.content.face.topic, i)) })
    })
    // The frames around children move with the first child inside them.
    for (const frame of block.frames) {
      const first = set.findIndex((corner) => isInside(corner, frame, at))
      const [from, to] = [set[first] ?? at, moved[first] ?? set[first] ?? at]
      const shifted = { x: at.x + to.x - from.x, y: at.y + to.y - from.y }
      this.frame(frame, box, box.below[first] ?? box, shifted)
    }
  }

  private placeBelow(head: At): void {
    const waiting = [head]
    const { numbers } = this.lengths
    for (let next = waiting.pop(); next; next = waiting.pop()) {
      if (this.takeOver(next)) continue
      const box = this.add(next)
      const { children, corners, frames } = next.block
      for (const frame of frames) this.frame(frame, box, box, next)
      for (let i = children.length - 1; i >= 0; i--)
        waiting.push({
          block: children[i]!,
          x: next.x + numbers[corners + 2 * i]!,
          y: next.y + numbers[corners + 2 * i + 1]!,
          parent: box,
          hue: head.hue,
        })
    }
  }

  /** Takes over all boxes of a block that stands where it stood; they follow one another in the layout before. */
  private takeOver({ block, x, y, parent, hue }: At): boolean {
    const { box, size, plain, hue: before, face } = block.content
    if (!box || !plain || before !== hue || face.hidden > 0) return false
    if (this.before[box.index] !== box || box.x !== x || box.y !== y) return false
    box.parent = parent
    parent?.hang(box)
    const start = box.index
    for (let i = start; i < start + size; i++) this.push(this.before[i]!)
    return true
  }

  private push(box: TopicBox): void {
    box.index = this.boxes.length
    this.boxes.push(box)
  }

  private add({ block, x, y, parent, hue }: At): TopicBox {
    const { content } = block
    const { face } = content
    const { opensMap } = face.topic
    const behind = opensMap ? this.countTopics(opensMap) : null
    const inside = boxInBlock(face)
    const made = new TopicBox(face, x + inside.x, y + inside.y, face.style.hue ?? hue, behind, parent)
    const box = latest(content, made)
    box.clearBelow()
    parent?.hang(box)
    this.push(box)
    content.hue = hue
    return box
  }

  /** Which child of its parent a topic was, in the order in which they were made: what comes between others leaves their hues. */
  private orderIn(parent: TopicBox): (topic: TopicRecord, shownAs: number) => number {
    let order = this.orders.get(parent)
    if (!order) {
      const ids = this.records.childrenWithTrashed(parent.topic.id).map(({ id }) => id)
      this.orders.set(parent, (order = new Map(ids.sort().map((id, i) => [id, i]))))
    }
    return (topic, shownAs) => order.get(topic.id) ?? shownAs
  }

  /** `like` is the box whose tones the frame has. */
  private frame({ enclosure, left, top, right, bottom }: Frame, head: TopicBox, like: TopicBox, at: Point): void {
    this.enclosures.push({
      enclosure,
      key: isAtHome(head) ? enclosure : `${head.key}>${enclosure}`,
      isTitled: true,
      x: at.x + left,
      y: at.y + top,
      width: right - left,
      height: bottom - top,
      family: like.style.family,
      hue: like.hue,
    })
  }

  /** Frames of enclosures around some of these heads of loose branches and topics placed by hand, which no row has set. */
  frameOthers(heads: readonly TopicRecord[], byKey: BoxLookup): void {
    const framed = new Set(this.enclosures.map(({ key }) => key))
    const around = new Set(heads.flatMap(({ id }) => this.records.enclosuresOf(id)))
    for (const enclosure of around) {
      if (framed.has(enclosure.id)) continue
      const inFrame = enclosure.topics.flatMap((topic) => byKey.get(topic) ?? [])
      const { style, hue } = inFrame[0]!
      for (const [i, bounds] of framesAround(inFrame, this.boxes, titleHeight(enclosure)).entries()) {
        const key = i === 0 ? enclosure.id : `${enclosure.id}/${i}`
        const tones = { family: style.family, hue }
        this.enclosures.push({ ...bounds, ...tones, enclosure: enclosure.id, key, isTitled: i === 0 })
      }
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

const isInside = (at: Point, frame: Frame, { x, y }: Point): boolean =>
  at.x >= x + frame.left && at.x < x + frame.right && at.y >= y + frame.top && at.y < y + frame.bottom

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
