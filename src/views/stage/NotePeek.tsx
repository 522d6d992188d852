import { Text } from '@mantine/core'
import type { TopicRecord } from '../../core/records/topic'
import { noteBeginning } from '../../core/text/note-beginning'
import { countNoteWords } from '../../core/text/word-count'
import pictures from '../pictures/pictures.module.css'
import type { CollectionSession } from '../sync/collection-session'

/** So many letters of a note are shown. */
const BEGINNING = 400

/** What a note begins with, and how long it is, before one opens it. */
export default function NotePeek({ session, topic }: { session: CollectionSession; topic: TopicRecord }) {
  const note = session.records.get('note', topic.note)?.text ?? ''
  const words = countNoteWords(note)
  return (
    <div className={pictures.peek}>
      <Text size="sm" ff="Literata, serif" dir="auto" style={{ overflowWrap: 'anywhere' }}>
        {noteBeginning(note, BEGINNING)}
      </Text>
      <Text size="xs" c="dimmed">
        {words === 1 ? '1 word' : `${words} words`}; press the sign for all of it
      </Text>
    </div>
  )
}
