import { Button } from '@mantine/core'
import { letGoOfNote } from '../../core/commands/carried-notes'
import type { TopicRecord } from '../../core/records/topic'
import { useAround } from '../app/around'
import { useMayEdit, useSessionHandle } from '../sync/use-session'
import { useWorkspace, workspace } from '../workspace/workspace-store'
import styles from './sheet.module.css'

/** Which other topics carry the note of a topic, with the way there and the way to have a note of its own. */
export default function CarriedNote({ topic }: { topic: TopicRecord }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const { active } = useWorkspace()
  const others = useAround(topic)?.carriedBy ?? []
  if (others.length === 0) return null
  return (
    <div className={styles.carried}>
      <span>One text, also the note of</span>
      <ul className={styles.entries}>
        {others.map(({ id, text, map, mapTitle }) => (
          <li key={id}>
            <button type="button" className={styles.jump} onClick={() => workspace.go(active, map, id)}>
              {text || 'Untitled'}
              {map !== topic.place.map && <span className={styles.where}> in {mapTitle || 'Untitled'}</span>}
            </button>
          </li>
        ))}
      </ul>
      {mayEdit && (
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => session.run((records, newIds) => letGoOfNote(records, { topic: topic.id }, newIds))}
        >
          Let go: a copy of its own
        </Button>
      )}
    </div>
  )
}
