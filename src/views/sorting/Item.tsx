import { useDraggable } from '@dnd-kit/core'
import { memo } from 'react'
import type { TopicId } from '../../core/records/ids'
import styles from './sorting.module.css'

interface Props {
  id: TopicId
  text: string
  isChosen: boolean
  isFaint: boolean
  /** `isRange` takes all from the one chosen last to this one. */
  choose(topic: TopicId, more: boolean, isRange: boolean): void
}

/** An item on the table: dragged, chosen, and sent to a band by its digit. */
export const Item = memo(({ id, text, isChosen, isFaint, choose }: Props) => {
  const { setNodeRef, listeners, isDragging } = useDraggable({ id })
  return (
    <button
      ref={setNodeRef}
      type="button"
      className={styles.item}
      data-item={id}
      data-faint={isFaint || undefined}
      data-dragged={isDragging || undefined}
      aria-pressed={isChosen}
      {...listeners}
      onClick={(event) => choose(id, event.ctrlKey || event.metaKey, event.shiftKey)}
    >
      {text || 'Untitled'}
    </button>
  )
})
Item.displayName = 'Item'
