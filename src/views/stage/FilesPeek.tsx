import { Text } from '@mantine/core'
import type { TopicRecord } from '../../core/records/topic'
import pictures from '../pictures/pictures.module.css'
import type { CollectionSession } from '../sync/collection-session'

/** So many files are named. */
const MOST = 8

/** What the files of a topic are called, before one opens them. */
export default function FilesPeek({ session, topic }: { session: CollectionSession; topic: TopicRecord }) {
  const { records } = session
  const names = records.attachments(topic.id).flatMap(({ file }) => records.get('file', file)?.name ?? [])
  return (
    <div className={pictures.peek}>
      {names.slice(0, MOST).map((name, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: files may be called alike, and nothing is kept of them here.
        <Text key={i} size="sm" style={{ overflowWrap: 'anywhere' }}>
          {name}
        </Text>
      ))}
      <Text size="xs" c="dimmed">
        {names.length > MOST && `and ${names.length - MOST} more; `}press the sign to open them
      </Text>
    </div>
  )
}
