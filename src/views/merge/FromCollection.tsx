import { Button, Group, Select, Stack, Text } from '@mantine/core'
import { IconBooks } from '@tabler/icons-react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { z } from 'zod'
import type { MapId } from '../../core/records/ids'
import { ask, wordsFor } from '../app/api'
import { useCollections } from '../app/collections'
import { Modal } from '../app/Modal'
import { useSession } from '../sync/use-session'

const Maps = z.object({ maps: z.array(z.object({ id: z.string(), title: z.string(), trashed: z.boolean() })) })

/** Copies a map of another collection into this one, to be merged or compared at once. */
export function FromCollection({ onBrought }: { onBrought(maps: readonly MapId[]): void }) {
  const [isAsking, setAsking] = useState(false)
  return (
    <>
      <Button
        variant="default"
        size="compact-sm"
        leftSection={<IconBooks size={14} aria-hidden />}
        onClick={() => setAsking(true)}
      >
        From another collection …
      </Button>
      {isAsking && <Choice onBrought={onBrought} onClose={() => setAsking(false)} />}
    </>
  )
}

function Choice({ onBrought, onClose }: { onBrought(maps: readonly MapId[]): void; onClose(): void }) {
  const session = useSession()
  const [from, setFrom] = useState<string | null>(null)
  const [map, setMap] = useState<string | null>(null)
  const [isBusy, setBusy] = useState(false)
  const collections = useCollections()
  const maps = useQuery({
    queryKey: ['maps of', from],
    queryFn: () => ask(Maps, `/api/collections/${from}`),
    enabled: from !== null,
  })
  const others = (collections.data ?? []).filter(({ id, trashed }) => id !== session.id && !trashed)
  const error = collections.error ?? maps.error
  const bring = async () => {
    if (!from || !map) return
    setBusy(true)
    const brought = await session.server.adopt(from, map)
    setBusy(false)
    if (!brought) return
    onClose()
    onBrought([brought])
  }
  return (
    <Modal opened onClose={onClose} title="A map of another collection">
      <Stack>
        {collections.data && others.length === 0 ? (
          <Text size="sm">
            There is no other collection yet that is open to you. Another person’s copy comes in by “Bring in” on the
            page of your collections.
          </Text>
        ) : (
          <>
            <Text size="sm">
              A copy of it comes into this collection, with notes, files and tags; there all stays as it is. Where it
              was made from a map here, what was changed on either side since is told apart.
            </Text>
            <Select
              label="Collection"
              data-autofocus
              searchable
              data={others.map(({ id, title }) => ({ value: id, label: title || 'Untitled' }))}
              value={from}
              onChange={(value) => {
                setFrom(value)
                setMap(null)
              }}
            />
            <Select
              label="Map"
              searchable
              disabled={!maps.data}
              data={(maps.data?.maps ?? [])
                .filter(({ trashed }) => !trashed)
                .map(({ id, title }) => ({ value: id, label: title || 'Untitled' }))}
              value={map}
              onChange={setMap}
            />
          </>
        )}
        {error && <Text c="ember">{wordsFor(error)}</Text>}
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Cancel
          </Button>
          <Button disabled={!map} loading={isBusy} onClick={() => void bring()}>
            Bring it here
          </Button>
        </Group>
      </Stack>
    </Modal>
  )
}
