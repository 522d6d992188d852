import { type CSSProperties, useEffect, useRef, useState } from 'react'
import { setText } from '../../core/commands/set-text'
import { parentOf } from '../../core/records/place'
import { isFollowable } from '../../core/records/weblink'
import { composeChild, composeSibling } from '../acts/compose'
import type { CollectionSession } from '../sync/collection-session'
import { situationOf } from './situation'
import styles from './workspace.module.css'
import { type Pane, workspace } from './workspace-store'

/**
 * The field in which a topic's text is written, on the map and in the outline. Enter keeps the text, Tab goes on with
 * a child, Shift+Enter breaks the line, Esc gives up; leaving the field keeps what was written.
 */
export function TextField({
  session,
  index,
  editing,
  style,
  onEnd,
}: {
  session: CollectionSession
  index: number
  editing: NonNullable<Pane['editing']>
  style: CSSProperties
  onEnd(): void
}) {
  const topic = session.records.get('topic', editing.topic)
  const [text, setFieldText] = useState(editing.text ?? topic?.text ?? '')
  const field = useRef<HTMLTextAreaElement>(null)
  const ended = useRef(false)
  useEffect(() => {
    const element = field.current
    if (!element) return
    element.focus({ preventScroll: true })
    if (editing.text === null) element.select()
    else element.setSelectionRange(element.value.length, element.value.length)
  }, [editing.text])

  const end = (kept: string | null) => {
    if (ended.current) return false
    ended.current = true
    const composed = session.isComposing(editing.topic)
    const before = session.records.get('topic', editing.topic)
    if (composed) {
      session.finishComposing(kept)
      if (kept !== null && isFollowable(kept.trim()))
        session.run((records, newIds) => setText(records, { topic: editing.topic, text: kept }, newIds))
    } else if (kept !== null && before && kept !== before.text)
      session.run((records, newIds) => setText(records, { topic: editing.topic, text: kept }, newIds))
    workspace.edit(index, null)
    const still = session.records.get('topic', editing.topic)
    const parentBefore = before ? parentOf(before) : null
    if (!still) workspace.select(index, parentBefore ? [parentBefore] : [])
    onEnd()
    return Boolean(still)
  }

  return (
    <textarea
      dir="auto"
      ref={field}
      className={styles.textField}
      style={style}
      value={text}
      aria-label="Text of the topic"
      maxLength={5_000}
      rows={1}
      onChange={(event) => setFieldText(event.currentTarget.value)}
      onBlur={() => end(text)}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        event.stopPropagation()
        if (event.nativeEvent.isComposing) return
        if (event.key === 'Escape') end(null)
        else if (event.key === 'Enter' && !event.shiftKey) {
          event.preventDefault()
          const wasNew = session.isComposing(editing.topic) && text.trim() !== ''
          const kept = end(text)
          const written = session.records.get('topic', editing.topic)
          // Pouring by keyboard: Ctrl+Enter keeps the text and goes on with the next sibling at once.
          if (kept && wasNew && (event.ctrlKey || event.metaKey) && written)
            composeSibling(situationOf(session, index), written)
        } else if (event.key === 'Tab') {
          event.preventDefault()
          const kept = end(text)
          const written = session.records.get('topic', editing.topic)
          if (kept && written && !event.shiftKey) composeChild(situationOf(session, index), written)
        }
      }}
    />
  )
}
