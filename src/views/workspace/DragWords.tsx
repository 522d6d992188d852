import { useDragged } from './dragging'
import styles from './workspace.module.css'

/** What dropping here would do, beside the pointer. */
export function DragWords() {
  const dragged = useDragged((state) => state.dragged)
  if (!dragged) return null
  return (
    <div className={styles.dragWords} style={{ left: dragged.at.x + 14, top: dragged.at.y + 14 }} role="status">
      {dragged.words}
    </div>
  )
}
