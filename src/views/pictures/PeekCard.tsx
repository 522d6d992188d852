import { Button, Group, Text } from '@mantine/core'
import type { MapId } from '../../core/records/ids'
import { useSession } from '../sync/use-session'
import styles from './pictures.module.css'
import { ThumbnailPicture, useMapPeek } from './ThumbnailPicture'

interface Way {
  name: string
  go(): void
}

/** What is behind a doorway, without going there: the shape of the map and what it begins with. */
export function PeekCard({ map, ways }: { map: MapId; ways: readonly Way[] }) {
  const session = useSession()
  const topics = session.isShut(map) ? 0 : session.countTopics(map)
  const { data } = useMapPeek(session.id, map, String(topics), !session.isShut(map))
  return (
    <div className={styles.peek}>
      <Text fw={600} size="sm" className={styles.peekTitle}>
        {session.titleOf(map)}
      </Text>
      {session.isShut(map) ? null : (
        <>
          <div className={styles.peekPicture}>
            <ThumbnailPicture collection={session.id} map={map} version={String(topics)} />
          </div>
          {data?.crowding && (
            <Text size="xs" c="var(--ember-text)">
              {data.crowding}
            </Text>
          )}
          <ul className={styles.peekTopics}>
            {data?.first.map(({ id, text }) => (
              <li key={id}>{text || 'Untitled'}</li>
            ))}
          </ul>
        </>
      )}
      {ways.length > 0 && (
        <Group gap="xs">
          {ways.map(({ name, go }) => (
            <Button key={name} size="compact-xs" variant="default" onClick={go}>
              {name}
            </Button>
          ))}
        </Group>
      )}
    </div>
  )
}
