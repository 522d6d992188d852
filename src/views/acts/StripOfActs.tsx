import { UnstyledButton } from '@mantine/core'
import { memo, useCallback } from 'react'
import { useSession } from '../sync/use-session'
import { situationOf } from '../workspace/situation'
import { takeFocus } from '../workspace/take-focus'
import { GROUPS, useWorkspace, workspace } from '../workspace/workspace-store'
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
  const { panes, active, group, groupPinned } = useWorkspace()
  const close = useCallback(() => {
    workspace.openGroup(null)
    workspace.pinGroup(false)
    takeFocus(document.querySelector<HTMLElement>(`[data-stage="${active}"] [role="tree"], [role="tree"]`))
  }, [active])
  if (panes.length === 0) return null
  return (
    <div className={styles.strip} data-strip>
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
      {group && <ActPanel key={group} group={group} pinned={groupPinned} index={active} onClose={close} />}
    </div>
  )
})
StripOfActs.displayName = 'StripOfActs'

function SelectedWords() {
  const session = useSession()
  const { active } = useWorkspace()
  const { topics } = situationOf(session, active)
  return <span className={styles.selected}>{selectedWords(topics.map(({ text }) => text))}</span>
}
