import { type Bounds, boundsOf, type MapLayout, type TopicBox } from '../layout/boxes'
import { isAtHome } from '../layout/occurrence'
import type { CrosslinkRecord, LinkEnd } from '../records/crosslink'
import { type Drawing, drawing, px } from './drawing'

export interface CrosslinkLine {
  /** The link's id, or a path where its topic is shown elsewhere. */
  key: string
  link: CrosslinkRecord
  bounds: Bounds
  drawing: Drawing
}

interface Point {
  x: number
  y: number
}

const ARROW = 7

/**
 * A cross-link as a curve from the edge of a box that shows its topic to that of another, or to the frame of an
 * enclosure, with a small head at its far end; null where that end is not shown. Where it is shown more than once, the
 * nearest is meant.
 */
export function crosslinkLine(link: CrosslinkRecord, from: TopicBox, layout: MapLayout): CrosslinkLine | null {
  const to = nearest(from, boxesAtEnd(link.to, layout))
  if (!to) return null
  const [start, end] = nearestEdges(from, to)
  const bend = Math.min(120, 30 + Math.abs(end.y - start.y) / 3)
  const c1 = { x: start.x + start.out * bend, y: start.y }
  const c2 = { x: end.x + end.out * bend, y: end.y }
  const curve = `M${px(start.x)} ${px(start.y)}C${px(c1.x)} ${px(c1.y)} ${px(c2.x)} ${px(c2.y)} ${px(end.x)} ${px(end.y)}`
  const head = `M${px(end.x + end.out * ARROW)} ${px(end.y - 4)}L${px(end.x)} ${px(end.y)}L${px(end.x + end.out * ARROW)} ${px(end.y + 4)}`
  const bounds = boundsOf(
    [start, end, c1, c2].map((point) => ({ x: point.x - 4, y: point.y - 4, width: 8, height: 8 })),
  )
  const parts = [
    drawing('path', { d: curve, class: 'crosslink-reach' }),
    drawing('path', { d: curve, class: 'crosslink-line' }),
    drawing('path', { d: head, class: 'crosslink-head' }),
  ]
  if (link.label !== '')
    parts.push(label(link.label, { x: (start.x + 3 * c1.x + 3 * c2.x + end.x) / 8, y: (start.y + end.y) / 2 }))
  const key = isAtHome(from) ? link.id : `${from.key}>${link.id}`
  return { key, link, bounds, drawing: drawing('g', { class: 'crosslink', 'data-crosslink': link.id }, parts) }
}

const label = (text: string, at: Point) =>
  drawing('text', { x: px(at.x), y: px(at.y - 4), class: 'crosslink-label', 'text-anchor': 'middle' }, [text])

/** What a link can be drawn to; nothing for what stands on no map, and where it is not shown. */
function boxesAtEnd({ kind, id }: LinkEnd, layout: MapLayout): readonly Bounds[] {
  switch (kind) {
    case 'topic':
      return layout.byKey.showing(id)
    case 'enclosure':
      return layout.enclosures.filter(({ enclosure }) => enclosure === id)
    case 'map':
    case 'note':
      return []
    default:
      return kind satisfies never
  }
}

function nearest(from: Bounds, boxes: readonly Bounds[]): Bounds | undefined {
  if (boxes.length < 2) return boxes[0]
  const middle = ({ x, y, width, height }: Bounds) => ({ x: x + width / 2, y: y + height / 2 })
  const here = middle(from)
  const distance = (box: Bounds) => Math.hypot(middle(box).x - here.x, middle(box).y - here.y)
  return boxes.reduce((best, box) => (distance(box) < distance(best) ? box : best))
}

/** The pair of upright edges that lie nearest to one another; `out` points away from the box. */
function nearestEdges(from: Bounds, to: Bounds): [Point & { out: number }, Point & { out: number }] {
  const edges = (box: Bounds) => [
    { x: box.x, y: box.y + box.height / 2, out: -1 },
    { x: box.x + box.width, y: box.y + box.height / 2, out: 1 },
  ]
  let best: [Point & { out: number }, Point & { out: number }] | null = null
  let least = Number.POSITIVE_INFINITY
  for (const a of edges(from))
    for (const b of edges(to)) {
      const distance = Math.abs(a.x - b.x)
      if (distance < least) {
        least = distance
        best = [a, b]
      }
    }
  return best!
}
