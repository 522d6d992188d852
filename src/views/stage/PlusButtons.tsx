import type { CSSProperties } from 'react'
import type { TopicBox } from '../../core/layout/boxes'
import styles from './stage.module.css'

/** At the growing side of a topic a plus for a child, and under it one for the next sibling. */
export function PlusButtons({
  box,
  transform,
  onChild,
  onSibling,
}: {
  box: TopicBox
  transform: { k: number; applyX(x: number): number; applyY(y: number): number }
  onChild(): void
  onSibling(): void
}) {
  // Beside the number of what is folded away, where there is one.
  const beside = box.hidden > 0 ? 30 : 0
  const edge = transform.applyX(box.growsLeft ? box.x - beside : box.x + box.width + beside)
  // Smaller when the map is far away, so that they do not cover its words.
  const scale = Math.min(1, Math.max(0.55, transform.k))
  const style = {
    left: box.growsLeft ? edge - 11 - 11 * scale : edge - 9 + 11 * scale,
    top: transform.applyY(box.y + box.height / 2) - 10,
    scale,
  }
  const below = {
    left: transform.applyX(box.x + box.width / 2) - 10,
    top: transform.applyY(box.y + box.height) - 9 + 10 * scale,
    scale,
  }
  const { text } = box.topic
  return (
    <>
      <Plus style={style} title="Add a child (Tab)" name={`Add a child to ${text}`} onClick={onChild} />
      {box.parent && (
        <Plus style={below} title="Add a sibling (Enter)" name={`Add a sibling after ${text}`} onClick={onSibling} />
      )}
    </>
  )
}

interface PlusProps {
  style: CSSProperties
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
