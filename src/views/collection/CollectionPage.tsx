import { ActionIcon, Button, Group, Loader, Menu, Stack, Text, TextInput, Title } from '@mantine/core'
import { IconDots, IconFileImport, IconPlus } from '@tabler/icons-react'
import { type FormEvent, Suspense, useState } from 'react'
import { moveFolder, renameFolder, trashFolder } from '../../core/commands/folders'
import { chooseHomeMap, renameCollection, renameMap } from '../../core/commands/maps'
import type { FolderRecord } from '../../core/records/folder'
import type { MapDigest } from '../../core/records/snapshot'
import { MAX_TITLE } from '../../core/records/text'
import { late } from '../app/late'
import { Modal } from '../app/Modal'
import { CollectionFrame } from '../frame/CollectionFrame'
import { OpenedCollection } from '../frame/OpenedCollection'
import { RunningJobs } from '../jobs/RunningJobs'
import { useSession } from '../sync/use-session'
import { FolderDialog } from './FolderDialog'
import { MapList } from './MapList'
import { MapsInTrash } from './MapsInTrash'
import { News } from './News'
import { TrashMaps } from './TrashMaps'

const Gallery = late(() => import('../beginning/Gallery'))
const ImportPanel = late(() => import('../beginning/ImportPanel'))

export default function CollectionPage({ collection }: { collection: string }) {
  return (
    <OpenedCollection collection={collection}>
      <Maps />
    </OpenedCollection>
  )
}

type Naming = { kind: 'rename'; map: MapDigest } | { kind: 'rename-collection' }
type Asked = Naming | { kind: 'new' } | { kind: 'import' } | { kind: 'folder' | 'trash'; map: MapDigest }

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
  return (
    <CollectionFrame place="maps">
      <Stack gap="lg">
        <Group justify="space-between" align="flex-start">
          <Title order={1} size="h2" style={{ overflowWrap: 'anywhere' }}>
            {session.collection.title}
          </Title>
          {session.mayEditAll && (
            <Group gap="xs">
              <Button leftSection={<IconPlus size={18} />} onClick={() => setAsked({ kind: 'new' })}>
                New map
              </Button>
              <Button
                variant="default"
                leftSection={<IconFileImport size={18} />}
                onClick={() => setAsked({ kind: 'import' })}
              >
                Import text
              </Button>
              <Button variant="default" onClick={() => setAsked({ kind: 'rename-collection' })}>
                Rename
              </Button>
            </Group>
          )}
        </Group>
        <RunningJobs asList />
        {kept.length === 0 ? (
          <>
            <Text c="dimmed">
              {session.mayEditAll
                ? 'There is no map here yet. Choose how the first one begins.'
                : 'There is no map here yet.'}
            </Text>
            {session.mayEditAll && (
              <Suspense fallback={<Loader aria-label="Opening the gallery" />}>
                <Gallery />
              </Suspense>
            )}
          </>
        ) : (
          <>
            <News />
            <MapList
              maps={kept}
              menu={(map) =>
                session.mayEditAll && (
                  <MapMenu
                    map={map}
                    isHome={map.id === session.collection.homeMap}
                    rename={() => setAsked({ kind: 'rename', map })}
                    moveToFolder={() => setAsked({ kind: 'folder', map })}
                    trash={() => setAsked({ kind: 'trash', map })}
                  />
                )
              }
              folderMenu={(folder) => session.mayEditAll && <FolderMenu folder={folder} />}
            />
          </>
        )}
        {trashed.length > 0 && <MapsInTrash maps={trashed} />}
      </Stack>
      <Modal
        opened={asked?.kind === 'new' || asked?.kind === 'import'}
        onClose={() => setAsked(null)}
        title={asked?.kind === 'import' ? 'Import text' : 'New map'}
        size={900}
        transitionProps={{ duration: 0 }}
      >
        <Suspense fallback={<Loader aria-label="Opening the gallery" />}>
          {asked?.kind === 'new' && <Gallery />}
          {asked?.kind === 'import' && <ImportPanel onBack={() => setAsked(null)} isAlone />}
        </Suspense>
      </Modal>
      {asked?.kind === 'trash' && <TrashMaps maps={[asked.map.id]} onClose={() => setAsked(null)} />}
      {asked?.kind === 'folder' && <FolderDialog maps={[asked.map.id]} onClose={() => setAsked(null)} />}
      {(asked?.kind === 'rename' || asked?.kind === 'rename-collection') && (
        <NameDialog asked={asked} onClose={() => setAsked(null)} />
      )}
    </CollectionFrame>
  )
}

const pick = (map: Pick<MapDigest, 'title' | 'trashed' | 'folder'> | undefined) =>
  map ? { title: map.title, trashed: map.trashed, folder: map.folder } : {}

/** What can be done with a folder. Its name is asked for in place of it. */
function FolderMenu({ folder }: { folder: FolderRecord }) {
  const session = useSession()
  const [isNaming, setNaming] = useState(false)
  return (
    <>
      <Menu position="bottom-end">
        <Menu.Target>
          <ActionIcon variant="subtle" color="gray" aria-label={`Folder ${folder.title}: what can be done`}>
            <IconDots size={18} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => setNaming(true)}>Rename</Menu.Item>
          {folder.parent && (
            <Menu.Item
              onClick={() =>
                session.run((records, newIds) => moveFolder(records, { folder: folder.id, parent: null }, newIds))
              }
            >
              Take it out of the folder around it
            </Menu.Item>
          )}
          <Menu.Item
            color="ember"
            onClick={() => session.run((records, newIds) => trashFolder(records, { folder: folder.id }, newIds))}
          >
            Remove the folder; its maps stay
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
      {isNaming && (
        <Modal opened onClose={() => setNaming(false)} title="Rename the folder">
          <form
            onSubmit={(event) => {
              event.preventDefault()
              const title = String(new FormData(event.currentTarget).get('name'))
              setNaming(false)
              session.run((records, newIds) => renameFolder(records, { folder: folder.id, title }, newIds))
            }}
          >
            <Stack>
              <TextInput
                name="name"
                label="Name"
                defaultValue={folder.title}
                required
                maxLength={MAX_TITLE}
                data-autofocus
              />
              <Button type="submit">Rename</Button>
            </Stack>
          </form>
        </Modal>
      )}
    </>
  )
}

function MapMenu({
  map,
  isHome,
  rename,
  moveToFolder,
  trash,
}: {
  map: MapDigest
  isHome: boolean
  rename(): void
  moveToFolder(): void
  trash(): void
}) {
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
        <Menu.Item onClick={moveToFolder}>Put into a folder …</Menu.Item>
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
        <Menu.Item onClick={() => void session.server.command('duplicate-map', { map: map.id, withChildren: false })}>
          Duplicate
        </Menu.Item>
        {map.opens.length > 0 && (
          <Menu.Item onClick={() => void session.server.command('duplicate-map', { map: map.id, withChildren: true })}>
            Duplicate with its child maps
          </Menu.Item>
        )}
        <Menu.Item color="ember" onClick={trash}>
          Put it into the trash
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  )
}

function NameDialog({ asked, onClose }: { asked: Naming; onClose(): void }) {
  const session = useSession()
  const [title, before] =
    asked.kind === 'rename' ? ['Rename the map', asked.map.title] : ['Rename the collection', session.collection.title]
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const name = String(new FormData(event.currentTarget).get('name')).trim()
    if (name === '') return
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
          <TextInput name="name" label="Name" defaultValue={before} required maxLength={MAX_TITLE} data-autofocus />
          <Button type="submit">Rename</Button>
        </Stack>
      </form>
    </Modal>
  )
}
