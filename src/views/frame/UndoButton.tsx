import { Button } from '@mantine/core'
import { IconArrowBackUp } from '@tabler/icons-react'
import { useQueryClient } from '@tanstack/react-query'
import { useSession } from '../sync/use-session'
import styles from './frame.module.css'

/** Takes back the last thing that was done, by its name; what the screen has asked for is asked anew. */
export function UndoButton() {
  const session = useSession()
  const queries = useQueryClient()
  const { undo } = session.undoable
  if (!undo) return null
  const name = `Undo: ${undo.label}`
  return (
    <Button
      variant="subtle"
      size="compact-sm"
      leftSection={<IconArrowBackUp size={18} aria-hidden />}
      classNames={{ root: styles.undo! }}
      aria-label={name}
      title={name}
      onClick={() => void session.takeBack('undo').then(() => queries.invalidateQueries())}
    >
      {name}
    </Button>
  )
}
