import { useMemo, useState } from 'react'
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
  /** A line was drawn from one topic to another. */
  onDraw?(from: string, to: string): void
  label: string
}

/** So far a press has to move on the screen to be a line, in px. */
const LEAST_LINE = 12

/** A map as a silhouette in which each part has its hue and its number. */
export function MapPicture({ layout, partOf, lit = null, marks, onPick, onDraw, label }: Props) {
  const { width, height, lines, bars } = useMemo(
    () => thumbnailOf({ layout }, partOf ? (box) => String(partOf(box.topic.id) ?? STAYS) : undefined),
    [layout, partOf],
  )
  const { bounds } = layout
  const scale = thumbnailScale(bounds)
  /** The line that is being drawn, from where it was begun to where the hand is, in the picture. */
  const [drawn, setDrawn] = useState<[DOMPoint, DOMPoint] | null>(null)
  const pointAt = ({ currentTarget, clientX, clientY }: React.MouseEvent<SVGSVGElement>): DOMPoint | null => {
    const inverse = currentTarget.getScreenCTM()?.inverse()
    return inverse ? new DOMPoint(clientX, clientY).matrixTransform(inverse) : null
  }
  const topicAt = ({ x, y }: DOMPoint) => nearest(layout.boxes, x / scale + bounds.x, y / scale + bounds.y)?.topic.id
  const begin = (event: React.PointerEvent<SVGSVGElement>) => {
    const at = event.button === 0 ? pointAt(event) : null
    if (!at || !onPick) return
    event.currentTarget.setPointerCapture(event.pointerId)
    setDrawn([at, at])
  }
  const end = (event: React.PointerEvent<SVGSVGElement>) => {
    const at = pointAt(event)
    setDrawn(null)
    if (!drawn || !at) return
    const perPx = event.currentTarget.getScreenCTM()?.a ?? 1
    const isLine = Math.hypot(at.x - drawn[0].x, at.y - drawn[0].y) * perPx >= LEAST_LINE
    const [from, to] = [topicAt(drawn[0]), topicAt(at)]
    if (!from || !to) return
    if (!isLine || from === to) onPick?.(to)
    else onDraw?.(from, to)
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
      onPointerDown={onPick && begin}
      onPointerMove={(event) => {
        const at = drawn && pointAt(event)
        if (at) setDrawn([drawn[0], at])
      }}
      onPointerUp={onPick && end}
      onPointerCancel={() => setDrawn(null)}
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
      {drawn && <path d={`M${drawn[0].x} ${drawn[0].y}L${drawn[1].x} ${drawn[1].y}`} className={styles.drawn} />}
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
