import { type PointerEvent as ReactPointerEvent, useMemo } from 'react'
import type { Bounds, TopicBox } from '../../core/layout/boxes'
import { plusSpots } from '../../core/layout/plus-spots'
import type { Point } from '../../core/records/place'
import styles from './stage.module.css'

/** Radius of a button on the screen, in px. */
const RADIUS = 10

/**
 * Where a topic grows a plus for a child, beneath or beside it one for the next sibling, and a grip from which a cross-link is drawn:
 * where they cover no words.
 */
export function PlusButtons({
  box,
  near,
  transform,
  onChild,
  onSibling,
  onLink,
}: {
  box: TopicBox
  near(bounds: Bounds): readonly Bounds[]
  transform: { k: number; applyX(x: number): number; applyY(y: number): number }
  onChild(): void
  onSibling(): void
  /** A cross-link begins to be drawn, from a point of the screen. */
  onLink(event: ReactPointerEvent, from: Point): void
}) {
  // Smaller when the map is far away.
  const scale = Math.min(1, Math.max(0.55, transform.k))
  const radius = (RADIUS * scale) / transform.k
  const { child, sibling, link } = useMemo(() => plusSpots(box, radius, near), [box, radius, near])
  const { text } = box.topic
  const at = ({ x, y }: Point) => ({
    left: transform.applyX(x) - RADIUS,
    top: transform.applyY(y) - RADIUS,
    scale,
  })
  return (
    <>
      {child && <Plus style={at(child)} title="Add a child (Tab)" name={`Add a child to ${text}`} onClick={onChild} />}
      {sibling && box.parent && (
        <Plus
          style={at(sibling)}
          title="Add a sibling (Enter)"
          name={`Add a sibling after ${text}`}
          onClick={onSibling}
        />
      )}
      {link && (
        <button
          type="button"
          tabIndex={-1}
          className={styles.linkGrip}
          style={at(link)}
          title="Drag to another topic: cross-link (Alt + L)"
          aria-label={`Draw a cross-link from ${text}`}
          onPointerDown={(event) => {
            if (event.button !== 0) return
            event.preventDefault()
            event.stopPropagation()
            const { left, top, width, height } = event.currentTarget.getBoundingClientRect()
            onLink(event, { x: left + width / 2, y: top + height / 2 })
          }}
        />
      )}
    </>
  )
}

interface PlusProps {
  style: { left: number; top: number; scale: number }
  title: string
  name: string
  onClick(): void
}

const Plus = ({ style, title, name, onClick }: PlusProps) => (
  <button
    type="button"
    tabIndex={-1}
    className={styles.plus}
    style={style}
    title={title}
    aria-label={name}
    onClick={onClick}
  >
    +
  </button>
)
