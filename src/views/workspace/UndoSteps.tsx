import { Menu, UnstyledButton } from '@mantine/core'
import { IconArrowBackUp, IconArrowForwardUp, IconChevronUp } from '@tabler/icons-react'
import { useState } from 'react'
import { useSessionHandle } from '../sync/use-session'
import styles from './workspace.module.css'

const MOST = 12

const WORDS = {
  undo: { name: 'Undo', list: 'Steps to undo', heading: 'Undo all steps down to …' },
  redo: { name: 'Redo', list: 'Steps to redo', heading: 'Redo all steps down to …' },
}

const lower = (label: string) => label.charAt(0).toLowerCase() + label.slice(1)

/** Undo or redo with the name of what it would do, and a list of the steps before that. */
export function UndoSteps({ which, next }: { which: 'undo' | 'redo'; next: string | null }) {
  const session = useSessionHandle()
  const [opened, setOpened] = useState(false)
  const words = WORDS[which]
  const Icon = which === 'undo' ? IconArrowBackUp : IconArrowForwardUp
  const steps = opened ? session.steps(which, MOST) : []
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
      {next && (
        <Menu opened={opened} onChange={setOpened} position="top-end" width={340}>
          <Menu.Target>
            <UnstyledButton className={styles.more} aria-label={words.list}>
              <IconChevronUp size={14} />
            </UnstyledButton>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Label>{words.heading}</Menu.Label>
            {steps.map((label, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: steps have no other order, and labels are the same often.
              <Menu.Item key={i} onClick={() => void session.takeBackSteps(which, i + 1)}>
                {label}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
      )}
    </span>
  )
}
