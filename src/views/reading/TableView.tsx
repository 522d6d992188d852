import { Button, Group, MultiSelect, SegmentedControl, Select, Table, Text } from '@mantine/core'
import { Suspense, useMemo, useState } from 'react'
import { type ChartChoice, proposeChart, readTable } from '../../core/formats/table-file'
import { late } from '../app/late'
import styles from './reading.module.css'

const TableChart = late(() => import('./TableChart'))

/** Rows that are shown at first, and more of them on request. */
const ROWS = 300

/** A table: its rows, and, where there are numbers in it, a chart of them. */
export default function TableView({ text, name }: { text: string; name: string }) {
  const table = useMemo(() => readTable(text), [text])
  const proposed = useMemo(() => proposeChart(table), [table])
  const [shown, setShown] = useState<'rows' | 'chart'>('rows')
  const [choice, setChoice] = useState<ChartChoice | null>(proposed)
  const [most, setMost] = useState(ROWS)
  const { columns, rows, isCut } = table
  const numbers = columns.flatMap(({ kind, name }, at) => (kind === 'number' ? { value: String(at), label: name } : []))
  return (
    <>
      <Group className={styles.tools} gap="sm">
        {proposed && (
          <SegmentedControl
            size="xs"
            aria-label="Show as"
            data={[
              { value: 'rows', label: 'Table' },
              { value: 'chart', label: 'Chart' },
            ]}
            value={shown}
            onChange={(value) => setShown(value === 'chart' ? 'chart' : 'rows')}
          />
        )}
        <Text size="sm" c="dimmed">
          {rows.length === 1 ? '1 row' : `${rows.length} rows`}
          {isCut ? ', the first of more; all of it comes with the download' : ''}
        </Text>
      </Group>
      {shown === 'chart' && choice ? (
        <>
          <Group gap="sm" px="md" pt="sm" align="flex-end">
            <Select
              size="xs"
              label="Along"
              data={columns.map((column, at) => ({ value: String(at), label: column.name }))}
              value={String(choice.along)}
              allowDeselect={false}
              onChange={(along) => setChoice({ ...choice, along: Number(along) })}
            />
            <MultiSelect
              size="xs"
              label="Drawn"
              className={styles.grow}
              data={numbers}
              value={choice.drawn.map(String)}
              onChange={(drawn) => setChoice({ ...choice, drawn: drawn.map(Number) })}
            />
          </Group>
          <Suspense>
            <TableChart table={table} choice={choice} name={name} />
          </Suspense>
        </>
      ) : (
        <>
          <Table.ScrollContainer minWidth={columns.length * 110} scrollAreaProps={{ tabIndex: 0 }}>
            <Table stickyHeader striped fz="sm" className={styles.table}>
              <Table.Thead>
                <Table.Tr>
                  {columns.map((column, at) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: a column is known by its place
                    <Table.Th key={at} ta={column.kind === 'number' ? 'right' : undefined}>
                      {column.name}
                    </Table.Th>
                  ))}
                </Table.Tr>
              </Table.Thead>
              <Table.Tbody>
                {rows.slice(0, most).map((row, at) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: a row is known by its place
                  <Table.Tr key={at}>
                    {row.map((cell, i) => (
                      // biome-ignore lint/suspicious/noArrayIndexKey: a cell is known by its place
                      <Table.Td key={i} ta={columns[i]?.kind === 'number' ? 'right' : undefined}>
                        {cell}
                      </Table.Td>
                    ))}
                  </Table.Tr>
                ))}
              </Table.Tbody>
            </Table>
          </Table.ScrollContainer>
          {rows.length > most && (
            <Button variant="subtle" m="sm" onClick={() => setMost(most + 1_000)}>
              {rows.length - most} more rows: show {Math.min(1_000, rows.length - most)}
            </Button>
          )}
        </>
      )}
    </>
  )
}
