import { useCallback, useState } from 'react'
import type { TopicId } from '../../core/records/ids'
import { FullWindow } from '../app/FullWindow'
import { useSession } from '../sync/use-session'
import NoteEditor from './NoteEditor'
import styles from './note-editor.module.css'

/** The note of a topic in the whole window, for who writes for longer. */
export default function WideNote({ topic: id, onClose }: { topic: TopicId; onClose(): void }) {
  const session = useSession()
  const [isCovered, setCovered] = useState(false)
  const [request, setRequest] = useState(1)
  const onFocused = useCallback(() => setRequest(0), [])
  const topic = session.records.get('topic', id)
  if (!topic) return null
  const name = topic.text || 'Untitled'
  return (
    <FullWindow label={`Note of ${name}`} title={name} isBegun isCovered={isCovered} onClose={onClose}>
      <div className={styles.window}>
        <NoteEditor
          topic={id}
          text={session.records.get('note', topic.note)?.text ?? ''}
          takeOver={() => ({ words: '', focused: true })}
          editable={session.mayEditMap(topic.place.map)}
          focusRequest={request}
          onFocused={onFocused}
          stands="in the whole window"
          onCover={setCovered}
          leave={() => !isCovered && onClose()}
        />
      </div>
    </FullWindow>
  )
}
