import { IconChevronRight } from '@tabler/icons-react'
import { Fragment } from 'react'
import type { TopicId } from '../../core/records/ids'
import { isRoot } from '../../core/records/place'
import { ancestors } from '../../core/tree/walk'
import type { CollectionSession } from '../sync/collection-session'
import { workspace } from '../workspace/workspace-store'
import styles from './stage.module.css'

/** Where the branch that is shown alone hangs: the way back to the whole map, or to a branch around it. */
export function BranchTrail({ session, index, only }: { session: CollectionSession; index: number; only: TopicId }) {
  const topic = session.records.get('topic', only)
  const above = topic ? [...ancestors(session.records, topic)].reverse() : []
  const around = above.filter((one) => !isRoot(one))
  return (
    <nav className={styles.trail} aria-label="Only this branch is shown" data-taken>
      <button type="button" onClick={() => workspace.showOnly(index, null)}>
        The whole map
      </button>
      {around.map(({ id, text }) => (
        <Fragment key={id}>
          <IconChevronRight size={14} aria-hidden />
          <button type="button" onClick={() => workspace.showOnly(index, id)}>
            {text || 'Untitled'}
          </button>
        </Fragment>
      ))}
      <IconChevronRight size={14} aria-hidden />
      <strong>{topic?.text || 'Untitled'}</strong>
    </nav>
  )
}
