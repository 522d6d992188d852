import { Skeleton, Text } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { writeNote } from '../../core/commands/write-note'
import type { TopicRecord } from '../../core/records/topic'
import type NoteEditor from '../note-editor/NoteEditor'
import { useCalmSession } from '../sync/use-session'
import styles from './sheet.module.css'

// The editor is as large as the rest of the workspace: it comes when there is a note to show or one to write.
let arrived: typeof NoteEditor | null = null
const fetchEditor = () =>
  import('../note-editor/NoteEditor').then((module) => {
    arrived = module.default
    return arrived
  })

interface Props {
  topic: TopicRecord
  /** A number that was not met yet asks for the note to be written in. */
  focusRequest: number
  onFocused(request: number): void
  leave(): void
}

/** The note of a topic. Until the editor is here, an empty one is a plain field, and what is typed there goes along. */
export function NoteSection({ topic, focusRequest, onFocused, leave }: Props) {
  const session = useCalmSession()
  const text = session.records.get('note', topic.note)?.text ?? ''
  const [Editor, setEditor] = useState(() => arrived)
  const [begun, setBegun] = useState(false)
  const field = useRef<HTMLTextAreaElement>(null)
  const typed = useRef({ words: '', focused: false })
  const wanted = begun || focusRequest > 0 || text.trim() !== ''
  useEffect(() => {
    if (!wanted || Editor) return
    let here = true
    void fetchEditor().then((editor) => {
      if (!here) return
      typed.current = { words: field.current?.value ?? '', focused: document.activeElement === field.current }
      setEditor(() => editor)
    })
    return () => {
      here = false
    }
  }, [wanted, Editor])
  useEffect(() => {
    if (focusRequest > 0) field.current?.focus()
  }, [focusRequest])
  if (Editor)
    return (
      <Editor
        topic={topic.id}
        text={text}
        begun={typed.current}
        editable={session.mayEdit}
        focusRequest={focusRequest}
        onFocused={onFocused}
        leave={leave}
        save={(base, text) =>
          session.run((records, making) => writeNote(records, { topic: topic.id, base, text }, making))
        }
      />
    )
  if (text.trim() !== '') return <Skeleton height={140} />
  if (!session.mayEdit)
    return (
      <Text size="sm" c="dimmed">
        There is no note.
      </Text>
    )
  return (
    <textarea
      ref={field}
      className={styles.emptyNote}
      aria-label="Note"
      placeholder="Write what lies behind this topic …"
      onFocus={() => setBegun(true)}
      onKeyDown={(event) => {
        event.stopPropagation()
        if (event.key === 'Escape') leave()
      }}
    />
  )
}
