import { Anchor, Badge, Table, Text, TextInput, VisuallyHidden } from '@mantine/core'
import { IconSearch } from '@tabler/icons-react'
import { type ReactNode, useMemo, useState } from 'react'
import type { MapDigest } from '../../core/records/snapshot'
import { foldForFinding } from '../../core/text/folding'
import { RowSpace, useRowsInView } from '../app/rows-in-view'

/** As people count: Map 2 stands before Map 10. */
const order = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' })

/** From so many maps on they can be narrowed down by words. */
const MANY = 12

interface Props {
  maps: readonly MapDigest[]
  home: string | null
  /** Of more topics a map is called crowded. */
  limit: number
  address(map: string): string
  titleOf(map: string): string
  menu(map: MapDigest): ReactNode
}

/** The maps of a collection as a table, of which only the rows in view are in the page. */
export function MapTable({ maps, home, limit, address, titleOf, menu }: Props) {
  const [words, setWords] = useState('')
  const sorted = useMemo(() => [...maps].sort((a, b) => order.compare(a.title, b.title)), [maps])
  const shown = useMemo(() => {
    const wanted = foldForFinding(words).split(/\s+/).filter(Boolean)
    return sorted.filter(({ title }) => wanted.every((word) => foldForFinding(title).includes(word)))
  }, [sorted, words])
  const { body, visible, before, after, measure } = useRowsInView(shown.length, (index) => shown[index]!.id)
  return (
    <>
      {maps.length >= MANY && (
        <TextInput
          aria-label="Find a map"
          placeholder={`Find one of ${maps.length} maps`}
          leftSection={<IconSearch size={18} />}
          value={words}
          onChange={(event) => setWords(event.currentTarget.value)}
          maw={420}
        />
      )}
      {shown.length === 0 && <Text c="dimmed">No map has these words in its title.</Text>}
      <Table.ScrollContainer minWidth={260}>
        <Table highlightOnHover aria-rowcount={shown.length + 1}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Map</Table.Th>
              <Table.Th ta="right">Topics</Table.Th>
              <Table.Th visibleFrom="sm">Reached from</Table.Th>
              <Table.Th ta="right" visibleFrom="sm">
                Linked maps
              </Table.Th>
              <Table.Th>
                <VisuallyHidden>What can be done</VisuallyHidden>
              </Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody ref={body}>
            <RowSpace height={before} columns={5} />
            {visible.map(({ index }) => {
              const map = shown[index]!
              return (
                <Table.Tr key={map.id} ref={measure} data-index={index} aria-rowindex={index + 2}>
                  <Table.Td>
                    <Anchor href={address(map.id)} fw={600} style={{ overflowWrap: 'anywhere' }}>
                      {map.title || 'Untitled'}
                    </Anchor>{' '}
                    {map.id === home && (
                      <Badge variant="light" size="sm">
                        home map
                      </Badge>
                    )}
                    {map.topics > limit && (
                      <Text span size="sm" c="var(--ember-text)" ml={6}>
                        crowded
                      </Text>
                    )}
                  </Table.Td>
                  <Table.Td ta="right">{map.topics}</Table.Td>
                  <Table.Td visibleFrom="sm">
                    {map.parentMap ? <Anchor href={address(map.parentMap)}>{titleOf(map.parentMap)}</Anchor> : ''}
                  </Table.Td>
                  <Table.Td ta="right" visibleFrom="sm">
                    {map.linked.length || ''}
                  </Table.Td>
                  <Table.Td ta="right">{menu(map)}</Table.Td>
                </Table.Tr>
              )
            })}
            <RowSpace height={after} columns={5} />
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
    </>
  )
}
