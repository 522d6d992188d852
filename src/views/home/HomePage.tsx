import { Alert, Anchor, Button, Card, Center, Group, Loader, Modal, Stack, Text, TextInput, Title } from '@mantine/core'
import { IconPlus } from '@tabler/icons-react'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { z } from 'zod'
import { ask, tellTrouble, wordsFor } from '../app/api'
import { PageFrame } from '../app/PageFrame'
import { Providers } from '../app/Providers'
import { usePerson } from '../app/person'
import { sayWhen } from '../app/when'
import { SignIn } from '../sign-in/SignIn'

const Collections = z.array(
  z.object({
    id: z.string(),
    title: z.string(),
    role: z.string(),
    trashed: z.boolean(),
    maps: z.number(),
    topics: z.number(),
    homeMap: z.string().nullable(),
    changedAt: z.string().nullable(),
  }),
)
type CollectionRow = z.infer<typeof Collections>[number]

interface Props {
  /** Whether the demo is there to be looked at. */
  demo: boolean
  /** A drawn map as markup, for whoever has not begun. */
  picture: string | null
}

export default function HomePage(props: Props) {
  return (
    <Providers>
      <Home {...props} />
    </Providers>
  )
}

function Home({ demo, picture }: Props) {
  const person = usePerson()
  if (person === undefined)
    return (
      <Center h="80vh">
        <Loader aria-label="Opening Folvet" />
      </Center>
    )
  return person ? (
    <PageFrame trail={[]}>
      <CollectionList />
    </PageFrame>
  ) : (
    <SignIn demo={demo} picture={picture} />
  )
}

function CollectionList() {
  const queries = useQueryClient()
  const { data, error } = useQuery({ queryKey: ['collections'], queryFn: () => ask(Collections, '/api/collections') })
  const [newIds, setMaking] = useState(false)
  const setTrashed = async (row: CollectionRow, trashed: boolean) => {
    const edit = { kind: 'collection', id: row.id, before: { trashed: !trashed }, after: { trashed } }
    const label = trashed ? 'Put the collection into the trash' : 'Take the collection out of the trash'
    const change = { id: crypto.randomUUID(), label, edits: [edit], undoes: null }
    await ask(z.unknown(), `/api/collections/${row.id}/changes`, { method: 'POST', body: { changes: [change] } }).catch(
      tellTrouble,
    )
    await queries.invalidateQueries({ queryKey: ['collections'] })
  }
  if (error) return <Alert color="ember">{wordsFor(error)}</Alert>
  if (!data) return <Loader aria-label="Opening the collections" />
  const kept = data.filter((row) => !row.trashed)
  const trashed = data.filter((row) => row.trashed)
  return (
    <Stack gap="lg">
      <Group justify="space-between">
        <Title order={1} size="h2">
          Collections
        </Title>
        <Button leftSection={<IconPlus size={18} />} onClick={() => setMaking(true)}>
          New collection
        </Button>
      </Group>
      {kept.length === 0 && <Text c="dimmed">There is no collection yet. Make one to begin with its first map.</Text>}
      {kept.map((row) => (
        <Card key={row.id} withBorder bg="var(--raised)" padding="md">
          <Group justify="space-between" wrap="nowrap">
            <div style={{ minWidth: 0 }}>
              <Anchor href={`/c/${row.id}`} fw={600} fz="lg" style={{ overflowWrap: 'anywhere' }}>
                {row.title}
              </Anchor>
              <Text c="dimmed" size="sm">
                {row.maps === 1 ? '1 map' : `${row.maps} maps`}, {row.topics === 1 ? '1 topic' : `${row.topics} topics`}
                {row.changedAt && `, last changed ${sayWhen(new Date(row.changedAt))}`}
              </Text>
            </div>
            <Group gap="xs" wrap="nowrap">
              {row.homeMap && (
                <Button variant="light" component="a" href={`/c/${row.id}/m/${row.homeMap}`}>
                  Open the home map
                </Button>
              )}
              {row.role === 'owner' && (
                <Button
                  variant="subtle"
                  color="gray"
                  c="var(--quiet-ink)"
                  onClick={() => setTrashed(row, true)}
                  aria-label={`Put ${row.title} into the trash`}
                >
                  Trash
                </Button>
              )}
            </Group>
          </Group>
        </Card>
      ))}
      {trashed.length > 0 && (
        <section aria-label="Trash">
          <Title order={2} size="h4">
            Trash
          </Title>
          {trashed.map((row) => (
            <Group key={row.id} justify="space-between">
              <Text>{row.title}</Text>
              <Button variant="subtle" onClick={() => setTrashed(row, false)}>
                Take {row.title} back
              </Button>
            </Group>
          ))}
        </section>
      )}
      <NewCollection opened={newIds} onClose={() => setMaking(false)} />
    </Stack>
  )
}

function NewCollection({ opened, onClose }: { opened: boolean; onClose(): void }) {
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const body = Object.fromEntries(new FormData(event.currentTarget))
    await ask(z.object({ collection: z.string() }), '/api/collections', { method: 'POST', body }).then(
      ({ collection }) => window.location.assign(`/c/${collection}`),
      tellTrouble,
    )
  }
  return (
    <Modal opened={opened} onClose={onClose} title="New collection">
      <form onSubmit={submit}>
        <Stack>
          <TextInput name="title" label="Name" required maxLength={500} data-autofocus />
          <Button type="submit">Make the collection</Button>
        </Stack>
      </form>
    </Modal>
  )
}
