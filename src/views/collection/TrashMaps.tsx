import { Button, Group, Stack, Text } from '@mantine/core'
import { useEffect, useRef } from 'react'
import type { MapId } from '../../core/records/ids'
import { counted } from '../../core/text/counted'
import { Modal } from '../app/Modal'
import { useSession } from '../sync/use-session'

/** Puts maps into the trash as one step; what leads to them from other maps is told before. */
export function TrashMaps({ maps, onClose }: { maps: readonly MapId[]; onClose(): void }) {
  const session = useSession()
  const going = new Set<string>(maps)
  const others = session.maps.filter(({ id, trashed }) => !trashed && !going.has(id))
  const doorways = others.filter(({ opens }) => opens.some((map) => going.has(map))).length
  const links = others.reduce(
    (sum, { linked }) => sum + linked.reduce((own, { map, links: count }) => own + (going.has(map) ? count : 0), 0),
    0,
  )
  const trash = async () => {
    onClose()
    await session.server.command('trash-maps', { maps: [...maps] })
  }
  const isAsked = doorways + links > 0
  // Where nothing leads there, there is nothing to tell.
  const isDone = useRef(false)
  useEffect(() => {
    if (isAsked || isDone.current) return
    isDone.current = true
    void trash()
  })
  if (!isAsked) return null
  const leading = [
    doorways > 0 && counted(doorways, 'map has a doorway there', 'maps have doorways there'),
    links > 0 && counted(links, 'cross-link leads there or back', 'cross-links lead there or back'),
  ]
  const [first] = maps
  return (
    <Modal
      opened
      onClose={onClose}
      title={
        maps.length === 1 ? `Put ${session.titleOf(first!)} into the trash?` : `Put ${maps.length} maps into the trash?`
      }
    >
      <Stack>
        <Text size="sm">{leading.filter(Boolean).join(', and ')}. They lead nowhere until it is taken back.</Text>
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Leave it
          </Button>
          <Button color="ember" onClick={() => void trash()} data-autofocus>
            Put into the trash
          </Button>
        </Group>
      </Stack>
    </Modal>
  )
}
