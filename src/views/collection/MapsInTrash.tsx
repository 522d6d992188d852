import { Button, Group, Stack, Text, Title } from '@mantine/core'
import { useState } from 'react'
import type { MapDigest } from '../../core/records/snapshot'
import { Modal } from '../app/Modal'
import { useSession } from '../sync/use-session'

/** Maps that lie in the trash: they are taken back, or removed for good. */
export function MapsInTrash({ maps }: { maps: readonly MapDigest[] }) {
  const session = useSession()
  const [asked, setAsked] = useState<readonly MapDigest[] | null>(null)
  return (
    <section aria-label="Trash">
      <Group justify="space-between">
        <Title order={2} size="h4">
          Trash
        </Title>
        {session.mayEditAll && maps.length > 1 && (
          <Button variant="subtle" color="ember" size="compact-sm" onClick={() => setAsked(maps)}>
            Empty the trash …
          </Button>
        )}
      </Group>
      {maps.map((map) => (
        <Group key={map.id} justify="space-between" gap={4}>
          <Text style={{ overflowWrap: 'anywhere' }} flex="1 1 200px">
            {map.title || 'Untitled'}
          </Text>
          {session.mayEditAll && (
            <Group gap={4}>
              <Button
                variant="subtle"
                size="compact-sm"
                aria-label={`Take ${map.title} back`}
                onClick={() => void session.server.command('restore-map', { map: map.id })}
              >
                Take back
              </Button>
              <Button
                variant="subtle"
                color="ember"
                size="compact-sm"
                aria-label={`Remove ${map.title} for good`}
                onClick={() => setAsked([map])}
              >
                Remove for good …
              </Button>
            </Group>
          )}
        </Group>
      ))}
      {asked && <RemoveForGood maps={asked} isAll={asked === maps} onClose={() => setAsked(null)} />}
    </section>
  )
}

/** Says what goes before it goes: this is the one thing that cannot be undone. */
function RemoveForGood({ maps, isAll, onClose }: { maps: readonly MapDigest[]; isAll: boolean; onClose(): void }) {
  const session = useSession()
  const [isBusy, setBusy] = useState(false)
  const topics = maps.reduce((sum, map) => sum + map.topics, 0)
  const [first] = maps
  const what = maps.length === 1 ? first!.title || 'Untitled' : `${maps.length} maps`
  const remove = async () => {
    setBusy(true)
    await session.server.emptyTrash(isAll ? null : first!.id)
    onClose()
  }
  return (
    <Modal opened onClose={onClose} title={`Remove ${what} for good?`}>
      <Stack>
        <Text size="sm">
          {topics === 1 ? 'One topic goes' : `${topics} topics go`} with it: notes, links and files that are nowhere
          else, and what the history holds of them. This cannot be undone. A published site keeps its pages until it is
          published again.
        </Text>
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose} data-autofocus>
            Keep it in the trash
          </Button>
          <Button color="ember" loading={isBusy} onClick={() => void remove()}>
            Remove for good
          </Button>
        </Group>
      </Stack>
    </Modal>
  )
}
