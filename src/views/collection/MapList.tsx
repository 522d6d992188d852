import { Group, SegmentedControl, Text } from '@mantine/core'
import { useLocalStorage } from '@mantine/hooks'
import { type ReactNode, useMemo, useState } from 'react'
import { moveFolder } from '../../core/commands/folders'
import { limitsOf } from '../../core/crowding/piece-cost'
import type { FolderRecord } from '../../core/records/folder'
import type { MapDigest } from '../../core/records/snapshot'
import { foldForFinding } from '../../core/text/folding'
import { FindField } from '../app/fields/FindField'
import { sayWhen } from '../app/when'
import { useWaiting } from '../frame/PlaceList'
import { placeAddress } from '../frame/places'
import { useSession } from '../sync/use-session'
import { flatRows, folderRows, type SortedBy } from './folder-rows'
import { MapCards } from './MapCards'
import { MapTable } from './MapTable'

/** From so many maps on they can be narrowed down by words. */
const MANY = 12

interface Props {
  maps: readonly MapDigest[]
  menu(map: MapDigest): ReactNode
  folderMenu(folder: FolderRecord): ReactNode
}

/** The maps of a collection, as cards or as a table, in their folders; or narrowed down by words. */
export function MapList({ maps, menu, folderMenu }: Props) {
  const session = useSession()
  const { records } = session
  const [view, setView] = useLocalStorage<'cards' | 'table'>({
    key: 'folvet-maps-seen-as',
    defaultValue: 'cards',
    getInitialValueInEffect: false,
  })
  const [words, setWords] = useState('')
  const [by, setBy] = useState<SortedBy>('title')
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set())
  const hasFolders = [...records.all('folder')].some(({ trashed }) => !trashed)
  const shown = useMemo(() => {
    const wanted = foldForFinding(words).split(/\s+/).filter(Boolean)
    return maps.filter(({ title }) => wanted.every((word) => foldForFinding(title).includes(word)))
  }, [maps, words])
  const order = view === 'cards' ? 'title' : by
  const isInFolders = words.trim() === '' && hasFolders
  const rows = isInFolders
    ? folderRows(records, shown, order, view === 'cards' ? new Set() : closed)
    : flatRows(shown, order)
  const waiting = useWaiting()
  const site = waiting?.site
  const lastOf = new Map(waiting?.lately.map(({ map, label, at }) => [map, `${label}, ${sayWhen(new Date(at))}`]))
  const both = {
    rows,
    collection: session.id,
    home: session.collection.homeMap,
    limit: limitsOf(records).limit,
    address: (map: string) => `/c/${session.id}/m/${map}`,
    menu,
    folderMenu,
  }
  return (
    <div>
      <Group gap="sm" mb="sm" justify="space-between">
        {maps.length >= MANY && (
          <FindField
            label="Find a map"
            placeholder={`Find one of ${maps.length} maps`}
            words={words}
            setWords={setWords}
            flex="1 1 220px"
          />
        )}
        <SegmentedControl
          size="sm"
          aria-label="See the maps as"
          value={view}
          data={[
            { value: 'cards', label: 'cards' },
            { value: 'table', label: 'table' },
            { value: 'atlas', label: 'atlas' },
          ]}
          onChange={(value) =>
            value === 'atlas'
              ? window.location.assign(placeAddress(session.id, 'atlas'))
              : setView(value === 'table' ? 'table' : 'cards')
          }
        />
      </Group>
      {shown.length === 0 && <Text c="dimmed">No map has these words in its title.</Text>}
      {view === 'cards' ? (
        <MapCards
          {...both}
          lately={(map) => lastOf.get(map) ?? null}
          madeHere={(map) => (session.isMadeHere(map) ? records : null)}
          isPublished={(map) => Boolean(site) && (site?.maps?.includes(map) ?? true)}
        />
      ) : (
        <MapTable
          {...both}
          maps={maps}
          by={by}
          sortBy={setBy}
          closed={closed}
          toggle={(folder) =>
            setClosed((known) => {
              const next = new Set(known)
              if (!next.delete(folder)) next.add(folder)
              return next
            })
          }
          records={records}
          mayMove={session.mayEditAll}
          titleOf={(map) => session.titleOf(map)}
          put={(map, folder) => void session.server.command('put-into-folder', { maps: [map], folder })}
          putFolder={(folder, parent) => session.run((own, newIds) => moveFolder(own, { folder, parent }, newIds))}
        />
      )}
    </div>
  )
}
