import {
  ActionIcon,
  Alert,
  Button,
  FileButton,
  Group,
  Loader,
  Menu,
  Modal,
  NativeSelect,
  Stack,
  Text,
  TextInput,
  Title,
} from '@mantine/core'
import { IconDots, IconFileImport, IconPlus, IconWorldUpload } from '@tabler/icons-react'
import { type FormEvent, useState } from 'react'
import { chooseHomeMap, makeMap, renameCollection, renameMap } from '../../core/commands/maps'
import { makeMapFrom } from '../../core/commands/use-template'
import type { MapDigest } from '../../core/records/snapshot'
import { tell, wordsFor } from '../app/api'
import { PageFrame } from '../app/PageFrame'
import { Providers } from '../app/Providers'
import { RunningJobs } from '../jobs/RunningJobs'
import type { ImportResult } from '../sync/collection-session'
import { SessionProvider, useSession, useStartedSession } from '../sync/use-session'
import { useTemplates } from '../sync/use-templates'
import { MapTable } from './MapTable'

export default function CollectionPage({ collection }: { collection: string }) {
  return (
    <Providers>
      <Loaded collection={collection} />
    </Providers>
  )
}

function Loaded({ collection }: { collection: string }) {
  const { session, error } = useStartedSession(collection)
  if (session)
    return (
      <SessionProvider value={session}>
        <Maps />
      </SessionProvider>
    )
  return (
    <PageFrame trail={[]}>
      {error ? <Alert color="ember">{wordsFor(error)}</Alert> : <Loader aria-label="Opening the collection" />}
    </PageFrame>
  )
}

type Asked = { kind: 'new' } | { kind: 'rename'; map: MapDigest } | { kind: 'rename-collection' }

/** All maps of a collection: open, make, import, rename, put into the trash and take back. */
function Maps() {
  const session = useSession()
  const [asked, setAsked] = useState<Asked | null>(null)
  // What this person just did is in the records; what stands in the digest comes a moment later.
  const maps = session.maps.map((map) => ({ ...map, ...pick(session.records.get('map', map.id)) }))
  const known = new Set(maps.map(({ id }) => id))
  for (const map of session.records.all('map'))
    if (!known.has(map.id)) maps.push({ ...map, parentMap: null, topics: 1, opens: [], linked: [] })
  const kept = maps.filter((map) => !map.trashed)
  const trashed = maps.filter((map) => map.trashed)
  const home = session.collection.homeMap
  const address = (map: string) => `/c/${session.id}/m/${map}`

  return (
    <PageFrame trail={[{ name: session.collection.title, address: `/c/${session.id}` }]}>
      <Stack gap="lg">
        <Group justify="space-between" align="flex-start">
          <Title order={1} size="h2" style={{ overflowWrap: 'anywhere' }}>
            {session.collection.title}
          </Title>
          <Group gap="xs">
            {session.mayEditAll && (
              <>
                <Button leftSection={<IconPlus size={18} />} onClick={() => setAsked({ kind: 'new' })}>
                  New map
                </Button>
                <ImportButton />
                <Button variant="default" onClick={() => setAsked({ kind: 'rename-collection' })}>
                  Rename
                </Button>
              </>
            )}
            <Button
              variant="light"
              component="a"
              href={`/c/${session.id}/publish`}
              leftSection={<IconWorldUpload size={18} />}
            >
              Publish
            </Button>
          </Group>
        </Group>
        <RunningJobs asList />
        {kept.length === 0 ? (
          <Text c="dimmed">
            This collection is empty. Make a map and begin to type, or import a list or a page of text.
          </Text>
        ) : (
          <MapTable
            maps={kept}
            home={home}
            address={address}
            titleOf={(map) => session.titleOf(map)}
            menu={(map) =>
              session.mayEditAll && (
                <MapMenu map={map} isHome={map.id === home} rename={() => setAsked({ kind: 'rename', map })} />
              )
            }
          />
        )}
        {trashed.length > 0 && (
          <section aria-label="Trash">
            <Title order={2} size="h4">
              Trash
            </Title>
            {trashed.map((map) => (
              <Group key={map.id} justify="space-between">
                <Text>{map.title || 'Untitled'}</Text>
                {session.mayEditAll && (
                  <Button variant="subtle" onClick={() => void session.command('restore-map', { map: map.id })}>
                    Take {map.title} back
                  </Button>
                )}
              </Group>
            ))}
          </section>
        )}
      </Stack>
      {asked && <NameDialog asked={asked} onClose={() => setAsked(null)} />}
    </PageFrame>
  )
}

const pick = (map: { title: string; trashed: boolean } | undefined) =>
  map ? { title: map.title, trashed: map.trashed } : {}

function MapMenu({ map, isHome, rename }: { map: MapDigest; isHome: boolean; rename(): void }) {
  const session = useSession()
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <ActionIcon variant="subtle" color="gray" aria-label={`${map.title}: what can be done`}>
          <IconDots size={18} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={rename}>Rename</Menu.Item>
        {!isHome && (
          <Menu.Item
            onClick={() =>
              session.run((records, newIds) =>
                chooseHomeMap(records, { collection: session.collection.id, map: map.id }, newIds),
              )
            }
          >
            Make it the home map
          </Menu.Item>
        )}
        <Menu.Item color="ember" onClick={() => void session.command('trash-map', { map: map.id })}>
          Put it into the trash
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  )
}

function NameDialog({ asked, onClose }: { asked: Asked; onClose(): void }) {
  const session = useSession()
  const [template, setTemplate] = useState('')
  const templates = useTemplates()
  const [title, before] =
    asked.kind === 'new'
      ? ['New map', '']
      : asked.kind === 'rename'
        ? ['Rename the map', asked.map.title]
        : ['Rename the collection', session.collection.title]
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const name = String(new FormData(event.currentTarget).get('name')).trim()
    if (name === '') return
    if (asked.kind === 'new') {
      const begin = { collection: session.collection.id, title: name }
      const made = session.run((records, newIds) =>
        template === ''
          ? makeMap(records, begin, newIds)
          : makeMapFrom(records, { ...begin, template, today: new Date().toISOString().slice(0, 10) }, newIds),
      )
      const root = session.records.get('topic', made?.[0] ?? null)
      onClose()
      if (root)
        await session
          .whenSaved()
          .then(() => window.location.assign(`/c/${session.id}/m/${root.place.map}?topic=${root.id}`))
      return
    }
    if (asked.kind === 'rename') {
      if (!session.isOpen(asked.map.id)) await session.openMap(asked.map.id)
      session.run((records, newIds) => renameMap(records, { map: asked.map.id, title: name }, newIds))
    } else
      session.run((records, newIds) =>
        renameCollection(records, { collection: session.collection.id, title: name }, newIds),
      )
    onClose()
  }
  return (
    <Modal opened onClose={onClose} title={title}>
      <form onSubmit={submit}>
        <Stack>
          <TextInput name="name" label="Name" defaultValue={before} required maxLength={500} data-autofocus />
          {asked.kind === 'new' && (
            <NativeSelect
              label="Begin with"
              description={templates.find(({ id }) => id === template)?.use ?? 'One topic in the middle'}
              value={template}
              onChange={(event) => setTemplate(event.currentTarget.value)}
              data={[
                { value: '', label: 'nothing yet' },
                ...templates.map(({ id, name }) => ({ value: id, label: name })),
              ]}
            />
          )}
          <Button type="submit">{asked.kind === 'new' ? 'Make the map' : 'Rename'}</Button>
        </Stack>
      </form>
    </Modal>
  )
}

const MOST_UNREAD_SHOWN = 100
const MAX_TEXT = 10 * 1024 * 1024

const importedWords = (maps: number) => (maps === 1 ? 'One map was imported.' : `${maps} maps were imported.`)

/** Makes a map of each chosen text file: indented or bulleted text, or a CommonMark page. */
function ImportButton() {
  const session = useSession()
  const [report, setReport] = useState<ImportResult | null>(null)
  const [isBusy, setBusy] = useState(false)
  const read = async (files: File[]) => {
    if (files.length === 0) return
    const tooLarge = files.find((file) => file.size > MAX_TEXT)
    if (tooLarge) return tell(`${tooLarge.name} is too large: a text to import may have up to 10 MB.`)
    const pages = await Promise.all(
      files.map(async (file) => ({ path: file.name, text: (await file.text()).replaceAll('\u0000', '\ufffd') })),
    )
    setBusy(true)
    const data = await session.importPages(pages)
    setBusy(false)
    if (!data) return
    if (data.unread.length === 0) tell(importedWords(data.maps.length))
    else setReport(data)
  }
  const unread = report?.unread ?? []
  return (
    <>
      <FileButton multiple accept=".md,.markdown,.txt,text/plain,text/markdown" onChange={(files) => void read(files)}>
        {(props) => (
          <Button {...props} variant="default" loading={isBusy} leftSection={<IconFileImport size={18} />}>
            Import text
          </Button>
        )}
      </FileButton>
      <Modal opened={unread.length > 0} onClose={() => setReport(null)} title="What could not be followed">
        <Text size="sm" mb="sm">
          {importedWords(report?.maps.length ?? 0)} The text is all there. These links lead to nothing that was
          imported:
        </Text>
        <ul>
          {unread.slice(0, MOST_UNREAD_SHOWN).map(({ page, address, reason }) => (
            <li key={page + address}>
              {address} in {page}. {reason}
            </li>
          ))}
        </ul>
        {unread.length > MOST_UNREAD_SHOWN && <Text size="sm">And {unread.length - MOST_UNREAD_SHOWN} more.</Text>}
      </Modal>
    </>
  )
}
