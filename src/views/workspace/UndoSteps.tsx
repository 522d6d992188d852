import { Menu, UnstyledButton } from '@mantine/core'
import { IconArrowBackUp, IconArrowForwardUp, IconChevronUp } from '@tabler/icons-react'
import { useState } from 'react'
import { useSessionHandle } from '../sync/use-session'
import styles from './workspace.module.css'
import { useWorkspace, workspace } from './workspace-store'

const MOST = 12

const WORDS = {
  undo: { name: 'Undo', list: 'Steps to undo', heading: 'Undo all steps down to …' },
  redo: { name: 'Redo', list: 'Steps to redo', heading: 'Redo all steps down to …' },
}

const lower = (label: string) => label.charAt(0).toLowerCase() + label.slice(1)

/** Undo or redo with the name of what it would do, and a list of the steps before that. */
export function UndoSteps({
  which,
  next,
  hasMore = false,
}: {
  which: 'undo' | 'redo'
  /** What it would do; redo is only shown where there is something. */
  next: string | null
  /** Whether something can be undone on other maps. */
  hasMore?: boolean
}) {
  const session = useSessionHandle()
  const [opened, setOpened] = useState(false)
  const words = WORDS[which]
  const Icon = which === 'undo' ? IconArrowBackUp : IconArrowForwardUp
  const active = useWorkspace((state) => state.active)
  const steps = opened ? session.steps(which, MOST) : []
  const [here, elsewhere] = [steps.filter((step) => !step.elsewhere), steps.filter((step) => step.elsewhere)]
  return (
    <span className={styles.undoSteps}>
      <button
        type="button"
        className={styles.undo}
        disabled={!next}
        onClick={() => void session.takeBack(which)}
        title={`${next ? `${words.name}: ${next}. ` : ''}${which === 'undo' ? 'Ctrl + Z' : 'Ctrl + Shift + Z'}`}
      >
        <Icon size={16} className={styles.undoIcon} aria-hidden />
        <span className={styles.undoWords}>{next ? `${words.name}: ${lower(next)}` : 'Nothing to undo'}</span>
      </button>
      {(next || hasMore) && (
        <Menu opened={opened} onChange={setOpened} position="top-end" width={340}>
          <Menu.Target>
            <UnstyledButton className={styles.more} aria-label={words.list}>
              <IconChevronUp size={14} />
            </UnstyledButton>
          </Menu.Target>
          <Menu.Dropdown>
            {here.length > 0 && <Menu.Label>{words.heading}</Menu.Label>}
            {here.map(({ id, name }, i) => (
              <Menu.Item key={id} onClick={() => void session.takeBackSteps(which, i + 1)}>
                {name}
              </Menu.Item>
            ))}
            {elsewhere.length > 0 && <Menu.Label>Done on other maps: go there to {which}</Menu.Label>}
            {elsewhere.map(({ id, name, elsewhere: map }) => (
              <Menu.Item key={id} onClick={() => map && workspace.go(active, map, null)}>
                {name} <span className={styles.stepElsewhere}>on {map && session.titleOf(map)}</span>
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
      )}
    </span>
  )
}
