import { useDragged } from './dragging'
import styles from './workspace.module.css'

/** What dropping here would do, beside the pointer. */
export function DragWords() {
  const dragged = useDragged((state) => state.dragged)
  if (!dragged) return null
  const { at, line } = dragged
  return (
    <>
      {line && (
        <svg className={styles.dragLine} aria-hidden>
          <path d={`M${line.x} ${line.y}L${at.x} ${at.y}`} />
        </svg>
      )}
      <div className={styles.dragWords} style={{ left: at.x + 14, top: at.y + 14 }} role="status">
        {dragged.words}
      </div>
    </>
  )
}
