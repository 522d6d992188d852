import { memo, useCallback } from 'react'
import { actName } from '../../core/changes/undo'
import { RunningJobs } from '../jobs/RunningJobs'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useSessionHandle } from '../sync/use-session'
import { FilterButton } from './FilterButton'
import { SaveState } from './SaveState'
import styles from './workspace.module.css'
import { useCalmWorkspace } from './workspace-store'
import { ZoomControl } from './ZoomControl'

const lower = (label: string) => label.charAt(0).toLowerCase() + label.slice(1)

/** Topic count, saved state, undo and redo by name. */
export const StatusLine = memo(() => {
  const session = useSessionHandle()
  const { panes, active } = useCalmWorkspace()
  const pane = panes[active]
  const map = pane?.map ?? ''
  const { undo, redo, count } = useCalmPart(
    useCallback(
      (now: CollectionSession) => ({
        undo: now.undoable.undo?.label ?? null,
        redo: now.undoable.redo?.label ?? null,
        count: now.countTopics(map),
      }),
      [map],
    ),
  )
  if (!pane) return null
  return (
    <footer className={styles.statusLine}>
      {pane.face === 'map' && <ZoomControl index={active} selected={pane.selected.length} />}
      <span>{count === 1 ? '1 topic' : `${count} topics`}</span>
      <FilterButton pane={pane} index={active} />
      {pane.selected.length > 1 && <span>{pane.selected.length} selected</span>}
      <span className={styles.grow} />
      <RunningJobs />
      <button
        type="button"
        className={styles.undo}
        disabled={!undo}
        onClick={() => void session.takeBack('undo')}
        title="Ctrl + Z"
      >
        {undo ? `Undo: ${lower(actName(undo))}` : 'Nothing to undo'}
      </button>
      {redo && (
        <button
          type="button"
          className={styles.undo}
          onClick={() => void session.takeBack('redo')}
          title="Ctrl + Shift + Z"
        >
          Redo: {lower(actName(redo))}
        </button>
      )}
      <SaveState />
    </footer>
  )
})
StatusLine.displayName = 'StatusLine'
