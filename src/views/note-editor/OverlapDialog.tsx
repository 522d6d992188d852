import { Button, Group, Stack, Text } from '@mantine/core'
import type { Overlap } from '../../core/changes/overlaps'
import { setText } from '../../core/commands/set-text'
import { writeNote } from '../../core/commands/write-note'
import type { TopicId } from '../../core/records/ids'
import { lineDifference } from '../../core/text/line-difference'
import { Modal } from '../app/Modal'
import { useSession } from '../sync/use-session'
import styles from './note-editor.module.css'

/** The lines of a text, and whether each is missing in the other one. */
function markedLines(text: string, other: string): { line: string; isOwn: boolean }[] {
  const lines = text.split('\n')
  const own = new Set<number>()
  for (const { newStart, newEnd } of lineDifference(other.split('\n'), lines))
    for (let at = newStart; at < newEnd; at++) own.add(at)
  return lines.map((line, at) => ({ line, isOwn: own.has(at) }))
}

/** Two versions of a note, or of a topic's text, of which both stand in it, side by side: to leave both, or to keep one. */
export default function OverlapDialog({
  topic,
  overlap: { kind, theirs, mine, joined },
  onClose,
}: {
  topic: TopicId
  overlap: Overlap
  onClose(): void
}) {
  const session = useSession()
  const name = session.records.get('topic', topic)?.text || 'Untitled'
  const keep = (text: string) => {
    onClose()
    // What was written since is joined with it.
    const args = { topic, base: joined, text }
    session.run((records, newIds) => (kind === 'note' ? writeNote : setText)(records, args, newIds))
  }
  const side = (label: string, text: string, other: string) => (
    <section aria-label={label}>
      <Text size="sm" fw={600}>
        {label}
      </Text>
      <div className={styles.version}>
        {markedLines(text, other).map(({ line, isOwn }, at) =>
          // biome-ignore lint/suspicious/noArrayIndexKey: lines have no other name
          isOwn ? <mark key={at}>{line || ' '}</mark> : <span key={at}>{line || ' '}</span>,
        )}
      </div>
      <Button size="compact-sm" variant="default" mt="xs" onClick={() => keep(text)}>
        Keep only this
      </Button>
    </section>
  )
  return (
    <Modal
      opened
      onClose={onClose}
      size="xl"
      title={kind === 'note' ? `Two versions of the note of ${name.slice(0, 60)}` : 'Two versions of a topic'}
    >
      <Stack gap="sm">
        <Text size="sm" c="dimmed">
          Two people wrote into the same lines. Both versions stand there, one after the other; what differs is marked.
        </Text>
        <div className={styles.versions}>
          {side('What somebody else wrote', theirs, mine)}
          {side('What you wrote', mine, theirs)}
        </div>
        <Group>
          <Button onClick={onClose} data-autofocus>
            Leave both
          </Button>
        </Group>
      </Stack>
    </Modal>
  )
}
