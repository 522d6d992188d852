import { Table, UnstyledButton } from '@mantine/core'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useMemo, useRef, useState } from 'react'
import type { MapDigest } from '../../core/records/snapshot'
import { RowSpace } from '../app/rows-in-view'
import { useSession } from '../sync/use-session'
import styles from './atlas.module.css'

interface Props {
  maps: readonly MapDigest[]
  chosen: ReadonlySet<string>
  choose(map: string, isMore: boolean): void
  point(map: string | null): void
}

const ROW = 34

/** As people count: Map 2 stands before Map 10. */
const order = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' })

interface Row {
  map: MapDigest
  folder: string
  /** Maps that open it. */
  openedBy: number
}

const COLUMNS = {
  title: { name: 'Map', value: ({ map }: Row) => map.title || 'Untitled' },
  folder: { name: 'Folder', value: ({ folder }: Row) => folder },
  topics: { name: 'Topics', value: ({ map }: Row) => map.topics },
  opens: { name: 'Opens', value: ({ map }: Row) => map.opens.length },
  openedBy: { name: 'Opened by', value: ({ openedBy }: Row) => openedBy },
  links: { name: 'Links', value: ({ map }: Row) => map.linked.reduce((sum, { links }) => sum + links, 0) },
} as const
type Column = keyof typeof COLUMNS
const NAMES = Object.keys(COLUMNS) as Column[]

/** The maps of the atlas as a table, chosen here as there: by words from A on, by numbers the most first. */
export function AtlasTable({ maps, chosen, choose, point }: Props) {
  const session = useSession()
  const { records } = session
  const [by, setBy] = useState<Column>('title')
  const room = useRef<HTMLDivElement>(null)
  const rows = useMemo(() => {
    const openedBy = new Map<string, number>()
    for (const { opens } of maps) for (const map of opens) openedBy.set(map, (openedBy.get(map) ?? 0) + 1)
    const { value } = COLUMNS[by]
    return maps
      .map((map): Row => {
        const folder = records.get('folder', map.folder)?.title ?? ''
        return { map, folder, openedBy: openedBy.get(map.id) ?? 0 }
      })
      .sort((a, b) => {
        const [one, other] = [value(a), value(b)]
        const difference = typeof one === 'number' ? Number(other) - one : order.compare(one, String(other))
        return difference || order.compare(a.map.title, b.map.title)
      })
  }, [maps, records, by])
  const shown = useVirtualizer({
    count: rows.length,
    getScrollElement: () => room.current,
    estimateSize: () => ROW,
    overscan: 10,
  })
  const visible = shown.getVirtualItems()
  return (
    <section ref={room} className={styles.table} aria-label="The maps as a table" tabIndex={0}>
      <Table stickyHeader aria-rowcount={rows.length + 1} fz="sm" verticalSpacing={6}>
        <Table.Thead>
          <Table.Tr>
            {NAMES.map((column) => (
              <Table.Th key={column} aria-sort={by === column ? 'other' : undefined}>
                <UnstyledButton fw={600} fz="inherit" onClick={() => setBy(column)} aria-pressed={by === column}>
                  {COLUMNS[column].name}
                  {by === column && <span aria-hidden> ▾</span>}
                </UnstyledButton>
              </Table.Th>
            ))}
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          <RowSpace height={visible[0]?.start ?? 0} columns={NAMES.length} />
          {visible.map(({ index }) => {
            const row = rows[index]!
            const { id } = row.map
            return (
              <Table.Tr
                key={id}
                aria-rowindex={index + 2}
                bg={chosen.has(id) ? 'var(--spruce-wash)' : undefined}
                onPointerEnter={() => point(id)}
                onPointerLeave={() => point(null)}
              >
                <Table.Td>
                  <UnstyledButton
                    fz="inherit"
                    fw={600}
                    className={styles.row}
                    aria-pressed={chosen.has(id)}
                    onClick={({ ctrlKey, metaKey }) => choose(id, ctrlKey || metaKey)}
                    onDoubleClick={() => window.location.assign(`/c/${session.id}/m/${id}`)}
                  >
                    {COLUMNS.title.value(row)}
                  </UnstyledButton>
                </Table.Td>
                {NAMES.slice(1).map((column) => (
                  <Table.Td key={column}>{COLUMNS[column].value(row) || ''}</Table.Td>
                ))}
              </Table.Tr>
            )
          })}
          <RowSpace height={shown.getTotalSize() - (visible.at(-1)?.end ?? 0)} columns={NAMES.length} />
        </Table.Tbody>
      </Table>
    </section>
  )
}
