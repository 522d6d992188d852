import { Alert, Anchor, Button, Card, Center, Group, Loader, Stack, Text, TextInput, Title } from '@mantine/core'
import { IconPlus } from '@tabler/icons-react'
import { useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { z } from 'zod'
import { MAX_TITLE } from '../../core/records/text'
import { counted } from '../../core/text/counted'
import { ask, tellTrouble, wordsFor } from '../app/api'
import { type CollectionRow, useCollections } from '../app/collections'
import { Modal } from '../app/Modal'
import { Providers } from '../app/Providers'
import { usePerson } from '../app/person'
import { sayWhen } from '../app/when'
import { PageFrame } from '../frame/PageFrame'
import { ThumbnailPicture } from '../pictures/ThumbnailPicture'
import { SignIn } from '../sign-in/SignIn'
import { SetAside } from '../sync/SetAside'
import styles from './home.module.css'
import { type Unsent, useUnsent } from './use-unsent'

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
      <CollectionList person={person.id} />
    </PageFrame>
  ) : (
    <SignIn demo={demo} picture={picture} />
  )
}

function CollectionList({ person }: { person: string }) {
  const unsent = useUnsent(person)
  const queries = useQueryClient()
  const { data, error } = useCollections()
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
      <NotOpenAnyMore unsent={[...unsent].flatMap(([id, of]) => (data.some((row) => row.id === id) ? [] : of))} />
      {kept.length === 0 && <Text c="dimmed">There is no collection yet. Make one to begin with its first map.</Text>}
      {kept.map((row) => (
        <CollectionCard key={row.id} row={row} unsent={unsent.get(row.id)} trash={() => void setTrashed(row, true)} />
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

/** What was written in collections that were taken away meanwhile: its words are still here. */
function NotOpenAnyMore({ unsent }: { unsent: readonly Unsent[] }) {
  const left = unsent.filter(({ aside }) => aside.length > 0)
  if (left.length === 0) return null
  return (
    <Alert color="ember" title="Not saved: the collection is not open to you any more">
      <Stack gap="lg">
        {left.map(({ aside, discard }) =>
          aside.map((one) => <SetAside key={one.change.id} aside={one} throwAway={() => discard(one.change.id)} />),
        )}
      </Stack>
    </Alert>
  )
}

/** A collection with the shape of its home map, and the maps that were changed last: each is opened by a press on its shape. */
function CollectionCard({ row, unsent, trash }: { row: CollectionRow; unsent: Unsent | undefined; trash(): void }) {
  const version = row.changedAt ?? ''
  return (
    <Card component="section" aria-label={row.title} withBorder bg="var(--raised)" padding="md">
      <div className={styles.card}>
        {row.homeMap && (
          <a
            className={styles.home}
            href={`/c/${row.id}/m/${row.homeMap}`}
            aria-label={`Open the home map of ${row.title}`}
            title="Open the home map"
          >
            <ThumbnailPicture collection={row.id} map={row.homeMap} version={version} />
          </a>
        )}
        <div className={styles.about}>
          <Anchor href={`/c/${row.id}`} fw={600} fz="lg">
            {row.title}
          </Anchor>
          <Text c="dimmed" size="sm">
            {counted(row.maps, 'map', 'maps')}, {counted(row.topics, 'topic', 'topics')}
            {row.changedAt && `, last changed ${sayWhen(new Date(row.changedAt))}`}
          </Text>
          {unsent && unsent.waiting > 0 && (
            <Text size="sm" role="status">
              {counted(unsent.waiting, 'change is', 'changes are')} kept here and will be sent
            </Text>
          )}
          {unsent && unsent.aside.length > 0 && (
            <Anchor href={`/c/${row.id}`} c="var(--ember-text)" size="sm">
              {counted(unsent.aside.length, 'change was', 'changes were')} not saved: look
            </Anchor>
          )}
          <Text c="dimmed" size="sm">
            {row.published ? 'Published' : 'Not published'}
          </Text>
          <Group gap="xs" mt="xs">
            <Button size="xs" variant="light" component="a" href={`/c/${row.id}`}>
              All maps
            </Button>
            {row.role === 'owner' && (
              <Button
                size="xs"
                variant="subtle"
                color="gray"
                c="var(--quiet-ink)"
                onClick={trash}
                aria-label={`Put ${row.title} into the trash`}
              >
                Trash
              </Button>
            )}
          </Group>
        </div>
        {row.lately.length > 0 && (
          <ul className={styles.lately} aria-label="Changed last">
            {row.lately.map(({ map, title, label, at }) => (
              <li key={map}>
                <a href={`/c/${row.id}/m/${map}`}>
                  <span className={styles.small}>
                    <ThumbnailPicture collection={row.id} map={map} version={at} />
                  </span>
                  <span className={styles.latelyTitle}>{title}</span>
                </a>
                <Text c="dimmed" size="xs" className={styles.latelyWhat} title={label}>
                  {label}, {sayWhen(new Date(at))}
                </Text>
              </li>
            ))}
          </ul>
        )}
      </div>
    </Card>
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
          <TextInput name="title" label="Name" required maxLength={MAX_TITLE} data-autofocus />
          <Button type="submit">Make the collection</Button>
        </Stack>
      </form>
    </Modal>
  )
}
