import type { Bounds, MapLayout, TopicBox } from '../layout/boxes'
import { CLEARANCE, Standing } from '../layout/make-room'
import { Plate } from '../layout/solid'
import { hangs, type Point, parentOf } from '../records/place'
import type { TopicRecord } from '../records/topic'

/** What is known of a map whose topics are to get places. */
interface Known {
  before: MapLayout
  now: MapLayout
  /** Topics that are to get a place, as they are after the change. */
  wanting: ReadonlyMap<string, TopicRecord>
  /** Those of them that a person has arranged again. */
  rearranged: ReadonlySet<string>
  /** Topics with places of their own that go along with a branch, by its head. */
  carried: ReadonlyMap<string, readonly TopicRecord[]>
}

const rankOf = ({ place }: TopicRecord): string => (hangs(place) ? place.rank : '')

/** Hundredths of a px are enough: two that are set beside one another stay so. */
const rounded = ({ x, y }: Point): Point => ({ x: Math.round(x * 100) / 100, y: Math.round(y * 100) / 100 })

/** Finds the points of a map at which topics that come into a free region are to stand. */
export class Spots {
  private readonly points = new Map<string, Point>()
  private readonly standing: Standing

  constructor(private readonly known: Known) {
    const { now, wanting } = known
    const heads: TopicBox[] = []
    for (const box of now.boxes) {
      if (!wanting.has(box.key)) continue
      const own = this.ownPoint(box)
      if (own) this.points.set(box.key, own)
      else if (!this.isNew(box.parent)) heads.push(box)
    }
    const coming = new Set(
      heads.flatMap((head) => [...this.group(head).map(({ key }) => key), ...this.along(head.key)]),
    )
    this.standing = new Standing(now.boxes.flatMap((box) => (coming.has(box.key) ? [] : [this.plate([box])])))
    for (const head of heads) this.settle(head)
  }

  /** Where a topic is to stand, in map units; null where it is folded away. */
  of(topic: string): Point | null {
    const point = this.points.get(topic)
    return point ? rounded(point) : null
  }

  /** How far a branch has moved from where it was seen; null where that cannot be told. */
  moved(topic: string): Point | null {
    const [from, to] = [this.known.before.byKey.get(topic), this.points.get(topic) ?? this.known.now.byKey.get(topic)]
    return from && to ? rounded({ x: to.x - from.x, y: to.y - from.y }) : null
  }

  /** The point of what keeps its own: as it stood, or as the layout has arranged it again. */
  private ownPoint(box: TopicBox): Point | null {
    return this.known.rearranged.has(box.key) ? { x: box.x, y: box.y } : this.seen(box)
  }

  /** Whether a box is to get a place, and has none of its own. */
  private isNew(box: TopicBox | null): boolean {
    return box !== null && this.known.wanting.has(box.key) && !this.points.has(box.key)
  }

  /** A head with all below it that stays beside it as the layout has set it. */
  private group(head: TopicBox): TopicBox[] {
    const found: TopicBox[] = []
    const waiting = [head]
    for (let box = waiting.pop(); box; box = waiting.pop()) {
      found.push(box)
      waiting.push(...box.below.filter((child) => this.isNew(child)))
    }
    return found
  }

  private along(head: string): string[] {
    return (this.known.carried.get(head) ?? []).map(({ id }) => id)
  }

  /** Where a box stands: at its new point, else where it was seen, as what is new pushes it nowhere, else as it is laid out. */
  private at(box: TopicBox): Point {
    return this.points.get(box.key) ?? this.seen(box) ?? box
  }

  private seen(box: TopicBox): Point | null {
    const old = this.known.before.byKey.get(box.key)
    return old && parentOf(old.topic) === parentOf(box.topic) ? { x: old.x, y: old.y } : null
  }

  private plate(boxes: readonly TopicBox[]): Plate {
    return new Plate(
      boxes.map((box) => {
        const { x, y } = this.at(box)
        return { x, y, width: box.width, height: box.height }
      }),
    )
  }

  private settle(head: TopicBox): void {
    const group = this.group(head)
    const from = this.known.before.byKey.get(head.key)
    const own = group.map((box): Bounds => relative(box, head))
    const along = from ? this.along(head.key).flatMap((id) => this.known.before.byKey.get(id) ?? []) : []
    const plate = new Plate([...own, ...along.map((box) => relative(box, from!))])
    Object.assign(plate, this.spot(head))
    this.standing.settle(plate)
    for (const box of group) this.points.set(box.key, { x: plate.x + box.x - head.x, y: plate.y + box.y - head.y })
  }

  /** Where a branch would stand if there were nothing else: behind the sibling before it, else before the next one, else beside its parent. */
  private spot(head: TopicBox): Point {
    const { parent } = head
    const siblings = (parent?.below ?? [])
      .filter((box) => box !== head && box.growth === head.growth && !this.isNew(box))
      .sort((a, b) => (rankOf(a.topic) < rankOf(b.topic) ? -1 : 1))
    const next = siblings.findIndex((box) => rankOf(box.topic) > rankOf(head.topic))
    const before = next === -1 ? siblings.at(-1) : siblings[next - 1]
    if (before) return this.beside(head, before, 'after')
    if (next !== -1) return this.beside(head, siblings[next]!, 'before')
    if (!parent) return { x: head.x, y: head.y }
    const at = this.at(parent)
    return { x: at.x + head.x - parent.x, y: at.y + head.y - parent.y }
  }

  private beside(head: TopicBox, sibling: TopicBox, where: 'before' | 'after'): Point {
    const { x, y } = this.at(sibling)
    const [dx, dy] = [sibling.width - head.width, sibling.height - head.height]
    if (head.growth === 'down' || head.growth === 'up')
      return {
        x: where === 'after' ? x + sibling.width + CLEARANCE : x - head.width - CLEARANCE,
        y: head.growth === 'up' ? y + dy : y,
      }
    return {
      x: head.growsLeft ? x + dx : x,
      y: where === 'after' ? y + sibling.height + CLEARANCE : y - head.height - CLEARANCE,
    }
  }
}

const relative = (box: TopicBox, to: TopicBox): Bounds => ({
  x: box.x - to.x,
  y: box.y - to.y,
  width: box.width,
  height: box.height,
})
