import { Button, Group, Stack, Text } from '@mantine/core'
import { Modal } from '../app/Modal'
import { useSession } from '../sync/use-session'
import type { Dropped } from './use-plate-drag'

/** Asks whether a branch that was dragged onto another map moves there, or a copy of it. */
export function BranchDropped({ dropped: { topic, onto }, onClose }: { dropped: Dropped; onClose(): void }) {
  const session = useSession()
  const name = topic!.text
  const other = session.titleOf(onto!)
  const send = (copies: boolean) => {
    onClose()
    void session.server.command('send-to-map', { topics: [topic!.id], map: onto, copies })
  }
  return (
    <Modal opened onClose={onClose} title={`${name}, dropped onto ${other}`}>
      <Stack>
        <Text size="sm">
          It comes last below the root there, with all that hangs on it. Links follow. It can be taken back.
        </Text>
        <Button data-autofocus onClick={() => send(false)}>
          Move it to {other}
        </Button>
        <Button variant="default" onClick={() => send(true)}>
          Copy it to {other}
        </Button>
        <Group justify="flex-end">
          <Button variant="subtle" color="gray" c="var(--quiet-ink)" onClick={onClose}>
            Nothing
          </Button>
        </Group>
      </Stack>
    </Modal>
  )
}
