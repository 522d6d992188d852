import { Button, Group, Text } from '@mantine/core'
import { useState } from 'react'
import { MapId } from '../../core/records/ids'
import { tell } from '../app/api'
import { FolderDialog } from '../collection/FolderDialog'
import { TrashMaps } from '../collection/TrashMaps'
import { useSession } from '../sync/use-session'
import styles from './atlas.module.css'

/** So many maps are named in an address. */
const MOST_NAMED = 100

/** What can be done with the maps that are chosen. */
export function ChosenMaps({ maps, onDone }: { maps: readonly string[]; onDone(): void }) {
  const session = useSession()
  const [first, ...more] = maps
  const [isFolder, setFolder] = useState(false)
  const [isTrash, setTrash] = useState(false)
  const title = session.titleOf(first!)
  const { homeMap } = session.collection
  const leaving = maps.filter((map) => map !== homeMap).map((map) => MapId.parse(map))
  const trash = () => {
    if (leaving.length < maps.length) tell('The home map stays: a collection begins there.')
    setTrash(true)
  }
  const isHomeAlone = maps.length === 1 && first === session.collection.homeMap
  return (
    <Group gap="sm" className={styles.chosen} role="group" aria-label="Chosen maps">
      <Text size="sm" fw={600} truncate maw={320}>
        {more.length === 0 ? title : `${maps.length} maps chosen`}
      </Text>
      {more.length === 0 && (
        <Button size="compact-sm" component="a" href={`/c/${session.id}/m/${first}`}>
          Open
        </Button>
      )}
      {session.mayEdit && more.length > 0 && (
        <Button
          size="compact-sm"
          component="a"
          href={`/c/${session.id}/m/${first}?${more.map((map) => `merge=${map}`).join('&')}`}
        >
          Merge into {title} …
        </Button>
      )}
      {session.mayEditAll && (
        <Button size="compact-sm" variant="default" onClick={() => setFolder(true)}>
          Put into a folder …
        </Button>
      )}
      {session.mayEditAll && maps.length <= MOST_NAMED && (
        <Button
          size="compact-sm"
          variant="default"
          component="a"
          href={`/c/${session.id}/publish?maps=${maps.join(',')}`}
        >
          Publish {maps.length === 1 ? 'it' : 'them'} …
        </Button>
      )}
      {isTrash && <TrashMaps maps={leaving} onClose={onDone} />}
      {isFolder && <FolderDialog maps={maps.map((map) => MapId.parse(map))} onClose={() => setFolder(false)} />}
      {session.mayEditAll && !isHomeAlone && (
        <Button size="compact-sm" variant="subtle" color="ember" onClick={trash}>
          Put into the trash
        </Button>
      )}
      <Button size="compact-sm" variant="subtle" color="gray" c="var(--quiet-ink)" onClick={onDone}>
        Choose none
      </Button>
    </Group>
  )
}
