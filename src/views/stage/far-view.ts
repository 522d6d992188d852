import type { MapLayout, TopicBox } from '../../core/layout/boxes'
import type { Inks } from '../../core/scene/ink'
import { boxTone } from '../../core/scene/topic-drawing'
import { within } from './in-view'
import type { View } from './use-view'

/** Scales below which words of the plain size cannot be read, and below which they can hardly. */
const [UNREADABLE, HARDLY_READABLE] = [0.3, 0.55]
/** So few topics are drawn with their words at any scale, and so many only where they can be read well. */
const [FEW, MANY] = [60, 350]

/** Whether a view is drawn as bars: because its words cannot be read, or hardly and there are very many. */
export function isSeenFromFar(layout: MapLayout, { drawn, scale }: View): boolean {
  if (scale >= HARDLY_READABLE) return false
  const shown = within(layout.boxes, drawn, (box) => box).length
  return shown > MANY || (scale < UNREADABLE && shown > FEW)
}

/** The topic whose box holds a point, or is nearest to it within `reach`; all in map units. */
export function boxAt(boxes: readonly TopicBox[], x: number, y: number, reach: number): TopicBox | null {
  let best: TopicBox | null = null
  let least = reach
  for (const box of boxes) {
    const far = Math.hypot(
      Math.max(box.x - x, 0, x - box.x - box.width),
      Math.max(box.y - y, 0, y - box.y - box.height),
    )
    if (far > least || (best && far === least)) continue
    best = box
    least = far
  }
  return best
}

/** Boxes by the class that gives their tone, so that each tone is set once. */
export function byTone(boxes: readonly TopicBox[]): Map<string, TopicBox[]> {
  const groups = new Map<string, TopicBox[]>()
  for (const box of boxes) {
    const tone = boxTone(box)
    const group = groups.get(tone)
    if (group) group.push(box)
    else groups.set(tone, [box])
  }
  return groups
}

/** Part of a topic's height that its bar fills, so that lines of topics stay apart. */
const [ABOVE, BAR] = [0.2, 0.6]

/**
 * Draws topics as bars and their connectors as lines of one elbow; the canvas must be set to map units. `pixel` is a
 * pixel of the screen in map units. What the filter leaves out is faint.
 */
export function drawFar(
  canvas: CanvasRenderingContext2D,
  boxes: readonly TopicBox[],
  inks: Inks,
  pixel: number,
  faded: ReadonlySet<string> | null,
): void {
  for (const [tone, group] of byTone(boxes)) {
    canvas.strokeStyle = canvas.fillStyle = String(inks.of('rect', `bar ${tone}`).fill)
    canvas.lineWidth = Math.max(1.5, pixel * 0.6)
    canvas.globalAlpha = 0.55
    canvas.beginPath()
    for (const box of group) if (box.parent) line(canvas, box.parent, box)
    canvas.stroke()
    for (const faint of faded ? [false, true] : [false]) {
      canvas.globalAlpha = faint ? 0.2 : 0.8
      canvas.beginPath()
      for (const box of group)
        if (!faded || faded.has(box.topic.id) === faint)
          canvas.rect(box.x, box.y + box.height * ABOVE, Math.max(box.width, pixel), Math.max(box.height * BAR, pixel))
      canvas.fill()
    }
  }
  canvas.globalAlpha = 1
}

function line(canvas: CanvasRenderingContext2D, parent: TopicBox, box: TopicBox): void {
  const fromX = box.x >= parent.x + parent.width / 2 ? parent.x + parent.width : parent.x
  const toX = box.x >= parent.x + parent.width / 2 ? box.x : box.x + box.width
  const y = box.y + box.height / 2
  const bend = (fromX + toX) / 2
  canvas.moveTo(fromX, parent.y + parent.height / 2)
  canvas.lineTo(bend, parent.y + parent.height / 2)
  canvas.lineTo(bend, y)
  canvas.lineTo(toX, y)
}
