import { memo, useCallback } from 'react'
import { actName } from '../../core/changes/undo'
import { RunningJobs } from '../jobs/RunningJobs'
import type { CollectionSession } from '../sync/collection-session'
import { NewVersion } from '../sync/NewVersion'
import { useCalmPart } from '../sync/use-session'
import { CrowdingNote } from './CrowdingNote'
import { FilterButton } from './FilterButton'
import { SaveState } from './SaveState'
import { UndoSteps } from './UndoSteps'
import styles from './workspace.module.css'
import { useCalmWorkspace } from './workspace-store'
import { ZoomControl } from './ZoomControl'

const nameOf = (change: { label: string } | null) => (change ? actName(change.label) : null)

/** Topic count, saved state, undo and redo by name. */
export const StatusLine = memo(() => {
  const { panes, active } = useCalmWorkspace()
  const pane = panes[active]
  const map = pane?.map ?? ''
  const { undo, redo, count, undoElsewhere } = useCalmPart(
    useCallback(
      (now: CollectionSession) => ({
        // Of what this window shows: with other panes it is another.
        shown: panes.map((each) => each.map).join(),
        undo: nameOf(now.undoable.undo),
        redo: nameOf(now.undoable.redo),
        count: now.countTopics(map),
        undoElsewhere: now.steps('undo', 1).length > 0,
      }),
      [map, panes],
    ),
  )
  if (!pane) return null
  return (
    <footer className={styles.statusLine}>
      {pane.face === 'map' && <ZoomControl index={active} selected={pane.selected.length} />}
      <CrowdingNote key={pane.map} map={pane.map} count={count} />
      <FilterButton pane={pane} index={active} />
      {pane.selected.length > 1 && <span>{pane.selected.length} selected</span>}
      <span className={styles.grow} />
      <NewVersion />
      <RunningJobs />
      <UndoSteps which="undo" next={undo} hasMore={undoElsewhere} />
      {redo && <UndoSteps which="redo" next={redo} />}
      <SaveState />
    </footer>
  )
})
StatusLine.displayName = 'StatusLine'
