import { Badge, Text } from '@mantine/core'
import { useElementSize } from '@mantine/hooks'
import { IconFolder } from '@tabler/icons-react'
import type { ReactNode } from 'react'
import type { FolderRecord } from '../../core/records/folder'
import type { Records } from '../../core/records/records'
import type { MapDigest } from '../../core/records/snapshot'
import { counted } from '../../core/text/counted'
import { useRowsInView } from '../app/rows-in-view'
import { Silhouette } from '../pictures/Silhouette'
import { ThumbnailPicture, useMapPeek } from '../pictures/ThumbnailPicture'
import styles from './collection.module.css'
import type { TableRow } from './folder-rows'

/** The least width of a card with the gap beside it, and the height of a row of cards before it is measured, in px. */
const [CARD, ROW] = [236, 214]

interface Props {
  rows: readonly TableRow[]
  collection: string
  home: string | null
  /** Of more topics a map is called crowded. */
  limit: number
  /** What was last done to a map, in words; null where that is not known. */
  lately(map: string): string | null
  isPublished(map: string): boolean
  /** The records of a map that was made here a moment ago, and that nobody else can draw yet. */
  madeHere(map: string): Records | null
  address(map: string): string
  menu(map: MapDigest): ReactNode
  folderMenu(folder: FolderRecord): ReactNode
}

type Line = { key: string; folder: Extract<TableRow, { kind: 'folder' }> } | { key: string; maps: MapDigest[] }

/** The maps of a collection as cards with their shapes, in their folders, of which only those in view are in the page. */
export function MapCards(props: Props) {
  const { rows, folderMenu } = props
  const { ref, width } = useElementSize<HTMLDivElement>()
  const perLine = Math.max(1, Math.floor((width || 3 * CARD) / CARD))
  const lines = linesOf(rows, perLine)
  const { body, visible, before, after, measure } = useRowsInView<HTMLDivElement>(
    lines.length,
    (index) => lines[index]!.key,
    ROW,
  )
  return (
    <div ref={ref}>
      <div ref={body}>
        <div style={{ height: before }} />
        {visible.map(({ index }) => {
          const line = lines[index]!
          return (
            <div key={line.key} ref={measure} data-index={index} className={styles.line}>
              {'folder' in line ? (
                <div className={styles.folder} style={{ paddingLeft: line.folder.level * 16 }}>
                  <IconFolder size={16} aria-hidden /> <b>{line.folder.folder.title}</b>
                  <Text span size="sm" c="dimmed">
                    {counted(line.folder.maps, 'map', 'maps')}
                  </Text>
                  {folderMenu(line.folder.folder)}
                </div>
              ) : (
                <div className={styles.cards} style={{ gridTemplateColumns: `repeat(${perLine}, minmax(0, 1fr))` }}>
                  {line.maps.map((map) => (
                    <MapCard key={map.id} map={map} {...props} />
                  ))}
                </div>
              )}
            </div>
          )
        })}
        <div style={{ height: after }} />
      </div>
    </div>
  )
}

/** Maps side by side as many as fit, each folder on a line of its own above them. */
function linesOf(rows: readonly TableRow[], perLine: number): Line[] {
  const lines: Line[] = []
  for (const row of rows) {
    const last = lines.at(-1)
    if (row.kind === 'folder') lines.push({ key: row.key, folder: row })
    else if (last && 'maps' in last && last.maps.length < perLine) last.maps.push(row.map)
    else lines.push({ key: row.key, maps: [row.map] })
  }
  return lines
}

function MapCard({
  map,
  collection,
  home,
  limit,
  lately,
  isPublished,
  madeHere,
  address,
  menu,
}: Props & { map: MapDigest }) {
  const last = lately(map.id)
  // What its picture is drawn from tells it too, once that is there.
  const { data: peek } = useMapPeek(collection, map.id, String(map.topics), false)
  const title = map.title || 'Untitled'
  const counts = [
    counted(map.topics, 'topic', 'topics'),
    map.opens.length > 0 && `opens ${counted(map.opens.length, 'map', 'maps')}`,
    map.linked.length > 0 && `linked with ${counted(map.linked.length, 'map', 'maps')}`,
  ].filter(Boolean)
  return (
    <section className={styles.card} aria-label={title}>
      <a className={styles.open} href={address(map.id)}>
        <span className={styles.shape}>
          {madeHere(map.id) ? (
            <Silhouette records={madeHere(map.id)!} map={map.id} />
          ) : (
            <ThumbnailPicture collection={collection} map={map.id} version={String(map.topics)} />
          )}
        </span>
        <span className={styles.title}>{title}</span>
      </a>
      <div className={styles.menu}>{menu(map)}</div>
      <div className={styles.told}>
        <Text size="sm" c="dimmed">
          {counts.join(', ')}
        </Text>
        {last && (
          <Text size="sm" c="dimmed" className={styles.last} title={last}>
            {last}
          </Text>
        )}
        <div className={styles.marks}>
          {map.id === home && (
            <Badge variant="light" size="sm">
              home map
            </Badge>
          )}
          {(map.topics > limit || peek?.crowding) && (
            <Text span size="sm" c="var(--ember-text)" title={peek?.crowding ?? undefined}>
              crowded
            </Text>
          )}
          {isPublished(map.id) && (
            <Text span size="sm" c="dimmed">
              published
            </Text>
          )}
        </div>
      </div>
    </section>
  )
}
