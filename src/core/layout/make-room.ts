import type { Branch, Part, TopicBox } from './boxes'
import type { Setting } from './kinds/set-children'

/** Space that is kept between boxes which were not set together, in px. */
const CLEARANCE = 16

/** What rounding may cost: boxes that were just moved apart are not found too near again. */
const SLACK = 1e-6
const NEAR = CLEARANCE - SLACK

const overlaps = (a: TopicBox, b: TopicBox): boolean =>
  a.x < b.x + b.width + NEAR && b.x < a.x + a.width + NEAR && a.y < b.y + b.height + NEAR && b.y < a.y + a.height + NEAR

/** Boxes in bands of equal height, so that only those near a box are compared with it. */
class Standing {
  private readonly bands = new Map<number, TopicBox[]>()

  add(boxes: readonly TopicBox[]): void {
    for (const box of boxes)
      for (const band of bandsOf(box)) {
        const known = this.bands.get(band)
        if (known) known.push(box)
        else this.bands.set(band, [box])
      }
  }

  /** Some box that one of these would touch. */
  hit(boxes: readonly TopicBox[]): { own: TopicBox; other: TopicBox } | null {
    for (const own of boxes)
      for (const band of bandsOf(own))
        for (const other of this.bands.get(band) ?? []) if (overlaps(own, other)) return { own, other }
    return null
  }
}

const BAND = 120
function* bandsOf(box: TopicBox): Generator<number> {
  const last = Math.floor((box.y + box.height + CLEARANCE) / BAND)
  for (let band = Math.floor((box.y - CLEARANCE) / BAND); band <= last; band++) yield band
}

function shift(parts: readonly Part[], dx: number, dy: number): void {
  for (const { boxes, enclosures } of parts)
    for (const box of [...boxes, ...enclosures]) {
      box.x += dx
      box.y += dy
    }
}

/** Moves parts in one direction by as little as it takes to touch nothing that stands. */
function pushClear(parts: readonly Part[], standing: Standing, direction: 'down' | 'up' | 'right' | 'left'): void {
  const boxes = parts.flatMap((part) => part.boxes)
  for (let hit = standing.hit(boxes); hit; hit = standing.hit(boxes)) {
    const { own, other } = hit
    switch (direction) {
      case 'down':
        shift(parts, 0, other.y + other.height + CLEARANCE - own.y)
        break
      case 'up':
        shift(parts, 0, other.y - CLEARANCE - own.height - own.y)
        break
      case 'right':
        shift(parts, other.x + other.width + CLEARANCE - own.x, 0)
        break
      case 'left':
        shift(parts, other.x - CLEARANCE - own.width - own.x, 0)
        break
      default:
        direction satisfies never
    }
  }
}

/** Moves a whole branch down until it touches nothing of what stands. */
export function moveClear(branch: Branch, others: readonly (Part | Branch)[]): void {
  const standing = new Standing()
  for (const other of others) for (const part of 'parts' in other ? other.parts : [other]) standing.add(part.boxes)
  pushClear(branch.parts, standing, 'down')
}

/**
 * Makes room for branches that keep their places: each arranged branch at the root that is in the way moves outward,
 * those nearest to the root first, so that the order stays and nothing overlaps.
 */
export function makeRoom(around: Branch, kept: readonly Branch[], setting: Setting): void {
  const [head, ...parts] = around.parts
  const root = head!.boxes[0]!
  const standing = new Standing()
  standing.add(head!.boxes)
  for (const branch of kept) for (const part of branch.parts) standing.add(part.boxes)
  const sideways = setting === 'down' || setting === 'up'
  const middle = sideways ? root.x + root.width / 2 : root.y + root.height / 2
  const distance = ({ boxes }: Part) => {
    const box = boxes[0]!
    return (sideways ? box.x + box.width / 2 : box.y + box.height / 2) - middle
  }
  for (const part of [...parts].sort((a, b) => Math.abs(distance(a)) - Math.abs(distance(b)))) {
    const outward = distance(part) >= 0
    pushClear([part], standing, sideways ? (outward ? 'right' : 'left') : outward ? 'down' : 'up')
    standing.add(part.boxes)
  }
}
