import { type Bounds, boundsOf, type MapLayout, type TopicBox } from '../layout/map-layout'
import { SPACING } from '../layout/tree'
import { type Drawing, drawing, px } from './drawing'

/** Where the children of a topic hang: the middle of the edge it grows from. */
const growingEdge = (box: TopicBox, left: boolean) => (left ? box.x : box.x + box.width)
const middle = (box: TopicBox) => box.y + box.height / 2

export interface Connector {
  parent: TopicBox
  bounds: Bounds
  drawing: Drawing
}

/** The connectors of the look *Laid*: a stub, an upright spine and short ticks, in the hue of the branch. */
export function drawConnectors(layout: MapLayout): Connector[] {
  const groups = new Map<string, { parent: TopicBox; left: boolean; children: TopicBox[] }>()
  for (const box of layout.boxes) {
    if (!box.parent) continue
    const key = `${box.parent.topic.id}${box.growsLeft ? 'l' : 'r'}`
    const group = groups.get(key)
    if (group) group.children.push(box)
    else groups.set(key, { parent: box.parent, left: box.growsLeft, children: [box] })
  }
  return [...groups.values()].map(({ parent, left, children }) => {
    const { bounds, spineX } = spineBounds(parent, left, children)
    const spine = `M${px(growingEdge(parent, left))} ${px(middle(parent))}H${px(spineX)}M${px(spineX)} ${px(bounds.y)}V${px(bounds.y + bounds.height)}`
    const ticks = children.map(
      (child) => `M${px(spineX)} ${px(middle(child))}H${px(left ? child.x + child.width : child.x)}`,
    )
    return { parent, bounds, drawing: spineDrawing(parent, children, spine, ticks) }
  })
}

function spineBounds(
  parent: TopicBox,
  left: boolean,
  children: readonly TopicBox[],
): { bounds: Bounds; spineX: number } {
  const from = growingEdge(parent, left)
  const spineX = from + (left ? -1 : 1) * Math.round(SPACING.level / 2)
  const ends = [parent, ...children].map((box) => ({ x: spineX, y: middle(box), width: 0, height: 0 }))
  const upright = boundsOf(ends)
  const x = Math.min(from, left ? from - SPACING.level : from)
  return { bounds: { x, y: upright.y, width: SPACING.level, height: upright.height }, spineX }
}

function spineDrawing(
  parent: TopicBox,
  children: readonly TopicBox[],
  spine: string,
  ticks: readonly string[],
): Drawing {
  if (parent.hue >= 0) return drawing('path', { d: spine + ticks.join(''), class: `connector hue-${parent.hue}` })
  const parts = children.map((child, i) => drawing('path', { d: ticks[i]!, class: `connector hue-${child.hue}` }))
  return drawing('g', {}, [drawing('path', { d: spine, class: 'connector root-spine' }), ...parts])
}
