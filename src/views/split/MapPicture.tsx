import { useMemo } from 'react'
import type { MapLayout, TopicBox } from '../../core/layout/boxes'
import { toneClass } from '../../core/look/families'
import { thumbnailOf, thumbnailScale } from '../../core/scene/thumbnail'
import styles from './split.module.css'

/** The hue of a part by its number; there are eight. */
export const partHue = (number: number): number => (number - 1) % 8

const STAYS = 'stays'

interface Props {
  layout: MapLayout
  /** The number of the part to which a topic belongs; undefined where it stays. */
  partOf?: (topic: string) => number | undefined
  /** The part that is pointed at: the others step back. */
  lit?: number | null
  /** Topics at which the number of a part stands. */
  marks?: ReadonlyMap<string, number>
  onPick?(topic: string): void
  label: string
}

/** A map as a silhouette in which each part has its hue and its number. */
export function MapPicture({ layout, partOf, lit = null, marks, onPick, label }: Props) {
  const { width, height, lines, bars } = useMemo(
    () => thumbnailOf({ layout }, partOf ? (box) => String(partOf(box.topic.id) ?? STAYS) : undefined),
    [layout, partOf],
  )
  const { bounds } = layout
  const scale = thumbnailScale(bounds)
  const pick = (event: React.MouseEvent<SVGSVGElement>) => {
    const at = event.currentTarget.getScreenCTM()?.inverse()
    if (!at || !onPick) return
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(at)
    const found = nearest(layout.boxes, point.x / scale + bounds.x, point.y / scale + bounds.y)
    if (found) onPick(found.topic.id)
  }
  return (
    // What a press does here is in the list below it for the keyboard.
    <svg
      className={`scene ${styles.picture}`}
      data-lit={lit !== null || undefined}
      data-pick={Boolean(onPick) || undefined}
      viewBox={`-8 -8 ${width + 16} ${height + 16}`}
      role="img"
      aria-label={label}
      onClick={onPick && pick}
    >
      <path d={lines} className={styles.lines} />
      {bars.map(({ tone, d }) => (
        <path
          key={tone}
          d={d}
          className={partOf ? partClass(tone) : `silhouette ${tone}`}
          data-lit={tone === String(lit) || undefined}
        />
      ))}
      {layout.boxes.flatMap((box) => {
        const number = marks?.get(box.topic.id)
        if (number === undefined) return []
        const [x, y] = [(box.x - bounds.x) * scale, (box.y - bounds.y) * scale]
        const size = Math.max(9, Math.min(20, Math.max(width, height) / 22))
        const left = box.growsLeft ? x + box.width * scale + size * 0.2 : x - size * 1.2
        return (
          <g key={box.key} className={styles.mark}>
            <circle cx={left + size / 2} cy={y + (box.height * scale) / 2} r={size * 0.62} />
            <text x={left + size / 2} y={y + (box.height * scale) / 2} fontSize={size * 0.8}>
              {number}
            </text>
          </g>
        )
      })}
    </svg>
  )
}

const partClass = (tone: string): string =>
  tone === STAYS ? styles.stays! : `silhouette ${styles.part} ${toneClass('spruce', partHue(Number(tone)))}`

/** The topic that is meant by a point near it. */
function nearest(boxes: readonly TopicBox[], x: number, y: number): TopicBox | null {
  let found: TopicBox | null = null
  let least = Number.POSITIVE_INFINITY
  for (const box of boxes) {
    const across = Math.max(box.x - x, 0, x - box.x - box.width)
    const down = Math.max(box.y - y, 0, y - box.y - box.height)
    const away = Math.hypot(across, down)
    if (away < least) [found, least] = [box, away]
  }
  return found
}
