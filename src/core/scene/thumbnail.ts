import { z } from 'zod'
import type { Bounds, TopicBox } from '../layout/boxes'
import { TopicId } from '../records/ids'
import type { Scene } from './scene'
import { boxTone } from './topic-drawing'

/** A map as it is seen very small: paths by the class of their tone, on a raster of whole units. */
export const Thumbnail = z.strictObject({
  width: z.int().positive(),
  height: z.int().positive(),
  /** Topics as bars, in hues; the root's hue is the first of all. */
  bars: z.array(z.strictObject({ tone: z.string(), d: z.string() })),
  /** From topics to what hangs on them. */
  lines: z.string(),
})
export type Thumbnail = z.infer<typeof Thumbnail>

/** A map as one peeks into it: its shape, its first topics, and whether it is hard to read. */
export const MapPeek = Thumbnail.extend({
  first: z.array(z.object({ id: TopicId, text: z.string() })),
  /** Why the map is hard to read, in words; null where it is not. */
  crowding: z.string().nullable(),
})
export type MapPeek = z.infer<typeof MapPeek>

/** Units along the longer side: two for each px of the largest picture that is made of it. */
const LENGTH = 360

/** How many units one px of a map becomes; its upper left corner becomes 0, 0. */
export const thumbnailScale = ({ width, height }: Bounds): number => LENGTH / Math.max(width, height, 1)

/**
 * The true shape of a map in a size that is bounded whatever it holds: what falls on the same units is drawn once. Linear in what
 * is shown of it. Each topic is drawn in a tone.
 */
export function thumbnailOf({ layout }: Pick<Scene, 'layout'>, toneOf: (box: TopicBox) => string = boxTone): Thumbnail {
  const { bounds, boxes } = layout
  const scale = thumbnailScale(bounds)
  const x = (value: number) => Math.round((value - bounds.x) * scale)
  const y = (value: number) => Math.round((value - bounds.y) * scale)
  const bars = new Map<string, Set<string>>()
  const lines = new Set<string>()
  for (const box of boxes) {
    const tone = toneOf(box)
    const bar = barOf(box, x, y)
    const known = bars.get(tone)
    if (known) known.add(bar)
    else bars.set(tone, new Set([bar]))
    if (box.parent) {
      const line = lineBetween(box.parent, box, x, y)
      if (line !== null) lines.add(line)
    }
  }
  return {
    width: Math.max(1, Math.round(bounds.width * scale)),
    height: Math.max(1, Math.round(bounds.height * scale)),
    bars: [...bars].map(([tone, parts]) => ({ tone, d: [...parts].join('') })),
    lines: [...lines].join(''),
  }
}

type Scaled = (value: number) => number

/** How much of a line of text its bar leaves free, above and below. */
const FREE = 0.2

function barOf({ parent, x: left, y: top, width, height, text }: TopicBox, x: Scaled, y: Scaled): string {
  const free = parent ? (height / Math.max(1, text.lines.length)) * FREE : 0
  const [from, upper] = [x(left), y(top + free)]
  return `M${from} ${upper}h${Math.max(1, x(left + width) - from)}v${Math.max(1, y(top + height - free) - upper)}H${from}z`
}

/** From the near edge of a parent to that of a child; null where they meet. */
function lineBetween(parent: TopicBox, child: TopicBox, x: Scaled, y: Scaled): string | null {
  const toLeft = child.x + child.width / 2 < parent.x + parent.width / 2
  const from = [x(toLeft ? parent.x : parent.x + parent.width), y(parent.y + parent.height / 2)] as const
  const to = [x(toLeft ? child.x + child.width : child.x), y(child.y + child.height / 2)] as const
  if (Math.abs(from[0] - to[0]) + Math.abs(from[1] - to[1]) < 3) return null
  const bend = Math.round((from[0] + to[0]) / 2)
  return `M${from[0]} ${from[1]}H${bend}V${to[1]}H${to[0]}`
}
