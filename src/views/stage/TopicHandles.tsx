import type { PointerEvent as ReactPointerEvent } from 'react'
import { setWidth } from '../../core/commands/layouts'
import { resizePicture } from '../../core/commands/pictures'
import type { TopicBox } from '../../core/layout/boxes'
import { TOPIC_WIDTH } from '../../core/records/topic'
import type { CollectionSession } from '../sync/collection-session'
import type { Command } from '../sync/trial'
import styles from './stage.module.css'

interface Props {
  session: CollectionSession
  box: TopicBox
  transform: { k: number; applyX(x: number): number; applyY(y: number): number }
}

/** Follows a pointer from a press to its release; what it would do is seen meanwhile, and done at the end. */
function drag(session: CollectionSession, event: ReactPointerEvent, commandAt: (dx: number) => Command): void {
  if (event.button !== 0) return
  event.preventDefault()
  event.stopPropagation()
  const start = event.clientX
  let last: Command | null = null
  const move = (moved: PointerEvent) => {
    last = commandAt(moved.clientX - start)
    session.preview(last)
  }
  const end = (ended: Event) => {
    window.removeEventListener('pointermove', move)
    window.removeEventListener('pointerup', end)
    window.removeEventListener('pointercancel', end)
    window.removeEventListener('keydown', giveUp, true)
    session.preview(null)
    if (last && ended.type === 'pointerup') session.run(last)
  }
  const giveUp = (pressed: KeyboardEvent) => {
    if (pressed.key !== 'Escape') return
    pressed.stopPropagation()
    end(pressed)
  }
  window.addEventListener('pointermove', move)
  window.addEventListener('pointerup', end)
  window.addEventListener('pointercancel', end)
  window.addEventListener('keydown', giveUp, true)
}

/** At the edges of the selected topic: a grip for the width of its text, and one at the corner of its picture. */
export function TopicHandles({ session, box, transform }: Props) {
  const { topic, style, growsLeft, face } = box
  const outward = growsLeft ? -1 : 1
  const clamp = (width: number) => Math.round(Math.min(TOPIC_WIDTH.most, Math.max(TOPIC_WIDTH.least, width)))
  const edge = transform.applyX(growsLeft ? box.x : box.x + box.width)
  const top = transform.applyY(box.y)
  const height = box.height * transform.k
  const { picture } = face
  const pictureX = growsLeft
    ? box.x + box.width - style.padX - (picture?.width ?? 0)
    : box.x + style.padX + (picture?.width ?? 0)
  return (
    <>
      <button
        type="button"
        tabIndex={-1}
        className={styles.widthGrip}
        style={{ left: edge - 3, top: top + 2, height: Math.max(8, height - 4) }}
        title="Drag to change the width of the text; double click for as wide as its words"
        aria-label={`Change the width of ${topic.text}`}
        onPointerDown={(event) =>
          drag(
            session,
            event,
            (dx) => (records, newIds) =>
              setWidth(
                records,
                { topics: [topic.id], width: clamp(box.text.width + (outward * dx) / transform.k) },
                newIds,
              ),
          )
        }
        onDoubleClick={(event) => {
          event.stopPropagation()
          if (topic.width !== null)
            session.run((records, newIds) => setWidth(records, { topics: [topic.id], width: null }, newIds))
        }}
      />
      {picture && (
        <button
          type="button"
          tabIndex={-1}
          className={styles.cornerGrip}
          style={{
            left: transform.applyX(pictureX) - 6,
            top: transform.applyY(box.y + style.padY + picture.height) - 6,
            cursor: growsLeft ? 'nesw-resize' : 'nwse-resize',
          }}
          title="Drag to resize the picture"
          aria-label={`Resize the picture of ${topic.text}`}
          onPointerDown={(event) =>
            drag(
              session,
              event,
              (dx) => (records, newIds) =>
                resizePicture(
                  records,
                  { topic: topic.id, width: Math.max(16, picture.width + (outward * dx) / transform.k) },
                  newIds,
                ),
            )
          }
        />
      )}
    </>
  )
}
