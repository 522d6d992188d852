import { CloseButton } from '@mantine/core'
import { backToFace } from './take-focus'
import styles from './workspace.module.css'

/** The way out of a column that lies over the map; in wide windows it stands beside the map and needs none. */
export const CloseColumn = ({ label, close }: { label: string; close(): void }) => (
  <CloseButton
    className={styles.closeColumn}
    aria-label={label}
    onClick={() => {
      close()
      backToFace()
    }}
  />
)
