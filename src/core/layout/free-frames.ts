import { type Bounds, boundsOf, type TopicBox } from './boxes'
import { Cells } from './solid'

/** Space between a frame and what is in it, in px. */
const PADDING = 10
/** Most parts of which it is tried whether they fit into one frame: beyond that each branch has one of its own. */
const MOST_TRIED = 200

interface Part {
  bounds: Bounds
  boxes: readonly TopicBox[]
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
  const framed = (boxes: readonly TopicBox[]): Bounds => {
    const { x, y, width, height } = boundsOf(boxes)
    const above = boxes[0] === branches[0]![0] ? title : 0
    return { x: x - PADDING, y: y - PADDING - above, width: width + PADDING * 2, height: height + PADDING * 2 + above }
  }
  const isClear = (bounds: Bounds): boolean => {
    for (const box of others.near(bounds)) if (touches(box, bounds)) return false
    return true
  }
  const partOf = (boxes: readonly TopicBox[]): Part => ({ boxes, bounds: framed(boxes) })
  const whole = partOf([...inside])
  if (isClear(whole.bounds)) return [whole.bounds]
  // A branch in which something else stands is framed topic by topic.
  const parts = branches.flatMap((boxes) => {
    const part = partOf(boxes)
    return isClear(part.bounds) ? [part] : boxes.map((box) => partOf([box]))
  })
  return (parts.length > MOST_TRIED ? parts : joined(parts, partOf, isClear)).map(({ bounds }) => bounds)
}

/** Puts each part into the first frame before it that stays clear of what does not belong there. */
function joined(
  parts: readonly Part[],
  partOf: (boxes: readonly TopicBox[]) => Part,
  isClear: (bounds: Bounds) => boolean,
): Part[] {
  const found: Part[] = []
  for (const part of parts) {
    const at = found.findIndex((other) => isClear(partOf([...other.boxes, ...part.boxes]).bounds))
    if (at < 0) found.push(part)
    else found[at] = partOf([...found[at]!.boxes, ...part.boxes])
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
