import { Button } from '@mantine/core'
import { useSession } from '../sync/use-session'

/** Takes back the last thing that was done, on a screen without a status line. */
export function UndoButton({ onDone }: { onDone(): void }) {
  const session = useSession()
  const { undo } = session.undoable
  if (!undo) return null
  return (
    <Button
      variant="default"
      maw="100%"
      h="auto"
      mih={36}
      styles={{ label: { whiteSpace: 'normal', overflowWrap: 'anywhere' } }}
      onClick={() => void session.takeBack('undo').then(onDone)}
    >
      Undo: {undo.label}
    </Button>
  )
}
