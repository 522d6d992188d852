import { UnstyledButton } from '@mantine/core'
import { memo, useCallback } from 'react'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart } from '../sync/use-session'
import { ToPlaceButton } from '../to-place/ToPlaceButton'
import { takeFocus } from '../workspace/take-focus'
import { GROUPS, useCalmWorkspace, useWorkspace, workspace } from '../workspace/workspace-store'
import { ActPanel } from './ActPanel'
import { GROUP_NAMES } from './act'
import styles from './acts.module.css'

/** What is selected, in few words. */
function selectedWords(texts: readonly string[]): string {
  if (texts.length === 0) return 'Nothing selected'
  return texts.length === 1 ? texts[0] || 'Untitled' : `${texts.length} topics selected`
}

/** The five groups of what can be done, in the order of the work; each opens its panel over the map. */
export const StripOfActs = memo(() => {
  const active = useWorkspace((state) => state.active)
  const group = useWorkspace((state) => state.group)
  const groupPinned = useWorkspace((state) => state.groupPinned)
  const close = useCallback(() => {
    workspace.openGroup(null)
    workspace.pinGroup(false)
    // The face that has the keyboard: with two panes, the tree that comes as that one.
    takeFocus(document.querySelectorAll<HTMLElement>('main [role="tree"]')[active] ?? null)
  }, [active])
  return (
    <section className={styles.strip} data-strip aria-label="What can be done">
      {GROUPS.map((each) => (
        <UnstyledButton
          key={each}
          className={styles.group}
          aria-expanded={group === each}
          aria-haspopup="menu"
          onClick={() => (group === each ? close() : workspace.openGroup(each))}
        >
          {GROUP_NAMES[each]}
        </UnstyledButton>
      ))}
      <SelectedWords />
      <ToPlaceButton />
      {group && <ActPanel key={group} group={group} pinned={groupPinned} index={active} onClose={close} />}
    </section>
  )
})
StripOfActs.displayName = 'StripOfActs'

function SelectedWords() {
  const { panes, active } = useCalmWorkspace()
  const selected = panes[active]?.selected
  const words = useCalmPart(
    useCallback(
      ({ records }: CollectionSession) =>
        selectedWords((selected ?? []).flatMap((id) => records.get('topic', id)?.text ?? [])),
      [selected],
    ),
  )
  return <span className={styles.selected}>{words}</span>
}
