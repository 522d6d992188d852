import { Button } from '@mantine/core'
import { IconArrowLeft } from '@tabler/icons-react'
import type { KeyboardEvent, ReactNode } from 'react'
import styles from './full-window.module.css'
import { Modal } from './Modal'

/**
 * A piece of work that takes the whole window, over the map it is about: its title with the way back, and below it what is
 * handed in, as rows of which one takes the room that is left.
 */
export function FullWindow({
  label,
  title,
  beside,
  isBegun = false,
  isCovered = false,
  onClose,
  onKeyDown,
  children,
}: {
  label: string
  title: ReactNode
  /** At the end of the head. */
  beside?: ReactNode
  /** Whether something in it takes the keyboard: else the way back does. */
  isBegun?: boolean
  /** Whether a dialog lies over it: then Escape closes that, and keys are for it alone. */
  isCovered?: boolean
  onClose(): void
  onKeyDown?(event: KeyboardEvent): void
  children: ReactNode
}) {
  return (
    <Modal
      opened
      fullScreen
      closeOnEscape={!isCovered}
      onClose={onClose}
      withCloseButton={false}
      attributes={{ content: { 'aria-label': label } }}
      styles={{ body: { height: '100%', padding: 0 } }}
    >
      <div className={styles.window} onKeyDown={isCovered ? undefined : onKeyDown} role="none">
        <div className={styles.head}>
          <Button
            variant="subtle"
            size="compact-sm"
            leftSection={<IconArrowLeft size={16} />}
            onClick={onClose}
            data-autofocus={!isBegun || undefined}
          >
            Back to the map
          </Button>
          <h1>{title}</h1>
          {beside}
        </div>
        {children}
      </div>
    </Modal>
  )
}
