import { Button, Group, Stack, Text } from '@mantine/core'
import { Modal } from '../app/Modal'
import { useSession } from '../sync/use-session'
import type { Dropped } from './use-plate-drag'

interface Props {
  dropped: Dropped
  /** Leaves it where it was let go, beside the other. */
  onPut(): void
  onClose(): void
}

/** Asks what is meant by a map that was dropped onto another one. */
export function DroppedOnto({ dropped: { maps, onto }, onPut, onClose }: Props) {
  const session = useSession()
  const [map] = maps
  const [name, other] = [session.titleOf(map!), session.titleOf(onto!)]
  const hang = () => {
    onClose()
    void session.server.command('hang-map', { map, behind: onto })
  }
  return (
    <Modal opened onClose={onClose} title={`${name}, dropped onto ${other}`}>
      <Stack>
        <Text size="sm">What should come of it? Each can be taken back.</Text>
        <Button data-autofocus onClick={hang}>
          Hang it behind {other}: a new topic there opens it
        </Button>
        <Button variant="default" component="a" href={`/c/${session.id}/m/${onto}?merge=${map}`}>
          Merge it into {other} …
        </Button>
        <Button
          variant="default"
          onClick={() => {
            onClose()
            onPut()
          }}
        >
          Only put it beside {other}
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
