import { UnstyledButton } from '@mantine/core'
import { IconInbox } from '@tabler/icons-react'
import { useCallback } from 'react'
import { toPlaceOn } from '../../core/tree/to-place'
import styles from '../acts/acts.module.css'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart } from '../sync/use-session'
import { useDragged } from '../workspace/dragging'
import { useWorkspace, workspace } from '../workspace/workspace-store'

/** Opens the drawer of what is still to be placed, tells how much that is, and takes what is dropped on it. */
export function ToPlaceButton() {
  const map = useWorkspace(({ panes, active }) => panes[active]?.map ?? '')
  const drawer = useWorkspace((state) => state.drawer)
  const count = useCalmPart(useCallback(({ records }: CollectionSession) => toPlaceOn(records, map).length, [map]))
  const isOver = useDragged(({ dragged }) => dragged?.onto === `drawer ${map}`)
  return (
    <UnstyledButton
      className={styles.toPlace}
      aria-expanded={drawer !== null}
      data-drop-drawer={map}
      data-onto={isOver || undefined}
      onClick={() => workspace.openDrawer(drawer === null ? 'map' : null)}
    >
      <IconInbox size={16} aria-hidden style={{ verticalAlign: '-3px' }} /> To place{count > 0 ? ` ${count}` : ''}
    </UnstyledButton>
  )
}
