import { Table, Text, UnstyledButton } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useMemo, useRef, useState } from 'react'
import { z } from 'zod'
import { limitsOf } from '../../core/crowding/piece-cost'
import type { MapDigest } from '../../core/records/snapshot'
import { ask } from '../app/api'
import { rangeBetween } from '../app/range'
import { RowSpace } from '../app/rows-in-view'
import { sayWhen } from '../app/when'
import { useMapPeek } from '../pictures/ThumbnailPicture'
import { useSession, useSessionHandle } from '../sync/use-session'
import styles from './atlas.module.css'

interface Props {
  maps: readonly MapDigest[]
  chosen: ReadonlySet<string>
  choose(map: string, isMore: boolean): void
  chooseAll(maps: readonly string[]): void
  point(map: string | null): void
}

const ROW = 34

/** As people count: Map 2 stands before Map 10. */
const order = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' })

const Facts = z.array(
  z.object({ map: z.string(), files: z.number(), changedAt: z.string().nullable(), published: z.boolean() }),
)
type Facts = z.infer<typeof Facts>[number]

interface Row {
  map: MapDigest
  facts: Facts | undefined
  folder: string
  /** Maps that open it. */
  openedBy: number
}

/** What a column says and is ordered by: by words from A on, by numbers the most first. */
const COLUMNS = {
  title: { name: 'Map', value: ({ map }: Row) => map.title || 'Untitled' },
  folder: { name: 'Folder', value: ({ folder }: Row) => folder },
  topics: { name: 'Topics', value: ({ map }: Row) => map.topics },
  opens: { name: 'Opens', value: ({ map }: Row) => map.opens.length },
  openedBy: { name: 'Opened by', value: ({ openedBy }: Row) => openedBy },
  links: { name: 'Links', value: ({ map }: Row) => map.linked.reduce((sum, { links }) => sum + links, 0) },
  files: { name: 'Files', value: ({ facts }: Row) => facts?.files ?? 0 },
  changed: { name: 'Changed', value: ({ facts }: Row) => Date.parse(facts?.changedAt ?? '') || 0 },
  published: { name: 'On the site', value: ({ facts }: Row) => (facts?.published ? 1 : 0) },
} as const
type Column = keyof typeof COLUMNS
/** What is said otherwise than it is ordered by. */
const WORDS: Partial<Record<Column, (row: Row) => string>> = {
  changed: ({ facts }) => (facts?.changedAt ? sayWhen(new Date(facts.changedAt)) : ''),
  published: ({ facts }) => (facts?.published ? 'yes' : ''),
}
const NAMES = Object.keys(COLUMNS) as Column[]

/** The maps of the atlas as a table, chosen here as there. */
export function AtlasTable({ maps, chosen, choose, chooseAll, point }: Props) {
  const session = useSession()
  const { records } = session
  const [by, setBy] = useState<Column>('title')
  const room = useRef<HTMLDivElement>(null)
  const { data } = useQuery({
    queryKey: ['map facts', session.id],
    queryFn: () => ask(Facts, `/api/collections/${session.id}/maps`),
  })
  const rows = useMemo(() => {
    const factsOf = new Map(data?.map((facts) => [facts.map, facts]))
    const openedBy = new Map<string, number>()
    for (const { opens } of maps) for (const map of opens) openedBy.set(map, (openedBy.get(map) ?? 0) + 1)
    const { value } = COLUMNS[by]
    return maps
      .map((map): Row => {
        const folder = records.get('folder', map.folder)?.title ?? ''
        return { map, folder, openedBy: openedBy.get(map.id) ?? 0, facts: factsOf.get(map.id) }
      })
      .sort((a, b) => {
        const [one, other] = [value(a), value(b)]
        const difference = typeof one === 'number' ? Number(other) - one : order.compare(one, String(other))
        return difference || order.compare(a.map.title, b.map.title)
      })
  }, [maps, records, by, data])
  const shown = useVirtualizer({
    count: rows.length,
    getScrollElement: () => room.current,
    estimateSize: () => ROW,
    overscan: 10,
  })
  const { limit } = limitsOf(records)
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
                    onClick={({ ctrlKey, metaKey, shiftKey }) => {
                      if (!shiftKey) return choose(id, ctrlKey || metaKey)
                      const order = rows.map(({ map }) => map.id)
                      chooseAll([...chosen, ...rangeBetween<string>(order, [...chosen].at(-1), id)])
                    }}
                    onDoubleClick={() => window.location.assign(`/c/${session.id}/m/${id}`)}
                  >
                    {COLUMNS.title.value(row)}
                  </UnstyledButton>
                </Table.Td>
                {NAMES.slice(1).map((column) => (
                  <Table.Td key={column}>
                    {WORDS[column]?.(row) ?? (COLUMNS[column].value(row) || '')}
                    {column === 'topics' && <Crowded map={row.map} limit={limit} />}
                  </Table.Td>
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

/** Says of a map in view that it is hard to read, by its number of topics or by its text. */
function Crowded({ map, limit }: { map: MapDigest; limit: number }) {
  const { id } = useSessionHandle()
  const { data } = useMapPeek(id, map.id, String(map.topics), true)
  if (map.topics <= limit && !data?.crowding) return null
  return (
    <Text span fz="inherit" c="var(--ember-text)" title={data?.crowding ?? undefined}>
      , crowded
    </Text>
  )
}
