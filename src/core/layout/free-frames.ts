import { type Bounds, boundsOf, type TopicBox } from './boxes'
import { Cells } from './solid'

/** Space between a frame and what is in it, in px. */
const PADDING = 10
/**
 * Most parts of which it is tried whether they fit into one frame: beyond that each branch has one of its own. Each try looks at what
 * stands where the frame would be, and a map is laid out with every change.
 */
const MOST_TRIED = 60

/** Topics that stand together in a frame: how far they reach, and whether the first of the enclosure is among them. */
interface Part {
  reach: Bounds
  isFirst: boolean
}

const touches = (a: Bounds, b: Bounds): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height

/**
 * The frames of an enclosure around branches that stand where a person put them: one around all of them where nothing else stands in
 * it, else as few as can be found so that nothing else does. The first has room for the title, of this height in px, above it.
 */
export function framesAround(heads: readonly TopicBox[], all: readonly TopicBox[], title: number): Bounds[] {
  const branches = heads.map(branchOf)
  const inside = new Set(branches.flat())
  const others = new Cells<TopicBox>()
  for (const box of all) if (!inside.has(box)) others.add(box, box)
  const partOf = (boxes: readonly TopicBox[]): Part => ({ reach: boundsOf(boxes), isFirst: boxes[0] === heads[0] })
  const frameOf = ({ reach: { x, y, width, height }, isFirst }: Part): Bounds => {
    const above = isFirst ? title : 0
    return { x: x - PADDING, y: y - PADDING - above, width: width + PADDING * 2, height: height + PADDING * 2 + above }
  }
  const isClear = (part: Part): boolean => {
    const frame = frameOf(part)
    for (const box of others.near(frame)) if (touches(box, frame)) return false
    return true
  }
  const whole = partOf([...inside])
  if (isClear(whole)) return [frameOf(whole)]
  // A branch in which something else stands is framed topic by topic.
  const parts = branches.flatMap((boxes) => {
    const part = partOf(boxes)
    return isClear(part) ? [part] : boxes.map((box) => partOf([box]))
  })
  return (parts.length > MOST_TRIED ? parts : joined(parts, isClear)).map(frameOf)
}

/** Puts each part into the first one before it with which it stays clear of what does not belong there. */
function joined(parts: readonly Part[], isClear: (part: Part) => boolean): Part[] {
  const found: Part[] = []
  for (const part of parts) {
    const both = (other: Part): Part => ({
      reach: boundsOf([other.reach, part.reach]),
      isFirst: other.isFirst || part.isFirst,
    })
    const at = found.findIndex((other) => isClear(both(other)))
    if (at < 0) found.push(part)
    else found[at] = both(found[at]!)
  }
  return found
}

function branchOf(head: TopicBox): TopicBox[] {
  const found: TopicBox[] = []
  const waiting = [head]
  for (let box = waiting.pop(); box; box = waiting.pop()) {
    found.push(box)
    for (let i = box.below.length - 1; i >= 0; i--) waiting.push(box.below[i]!)
  }
  return found
}
