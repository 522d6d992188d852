import {
  DndContext,
  type DraggableSyntheticListeners,
  DragOverlay,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import { ActionIcon, Anchor, Badge, Table, Text, UnstyledButton, VisuallyHidden } from '@mantine/core'
import { IconChevronDown, IconChevronRight, IconFolder, IconGripVertical } from '@tabler/icons-react'
import { type ReactNode, useState } from 'react'
import type { FolderRecord } from '../../core/records/folder'
import { FolderId, MapId } from '../../core/records/ids'
import type { Records } from '../../core/records/records'
import type { MapDigest } from '../../core/records/snapshot'
import { useLetGo } from '../app/let-go'
import { RowSpace, useRowsInView } from '../app/rows-in-view'
import { useMapPeek } from '../pictures/ThumbnailPicture'
import type { SortedBy, TableRow } from './folder-rows'

const COLUMNS = 5
const OUTSIDE = 'outside of folders'

interface Props {
  maps: readonly MapDigest[]
  /** The maps that are to be seen, in their folders. */
  rows: readonly TableRow[]
  by: SortedBy
  sortBy(by: SortedBy): void
  /** Folders of which only the name is seen. */
  closed: ReadonlySet<string>
  toggle(folder: string): void
  records: Records
  home: string | null
  /** Of more topics a map is called crowded. */
  limit: number
  collection: string
  mayMove: boolean
  address(map: string): string
  titleOf(map: string): string
  menu(map: MapDigest): ReactNode
  folderMenu(folder: FolderRecord): ReactNode
  put(map: MapId, folder: FolderId | null): void
  putFolder(folder: FolderId, into: FolderId | null): void
}

/** The maps of a collection as a table, in their folders, of which only the rows in view are in the page. */
export function MapTable(props: Props) {
  const { rows, by, sortBy, closed, maps, records, mayMove, put, putFolder } = props
  const [dragged, setDragged] = useState<string | null>(null)
  const letGo = useLetGo()
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }))
  const hasFolders = [...records.all('folder')].some(({ trashed }) => !trashed)
  const { body, visible, before, after, measure } = useRowsInView(rows.length, (index) => rows[index]!.key)
  const heading = (sort: SortedBy, name: string) => (
    <UnstyledButton fw={700} fz="inherit" onClick={() => sortBy(sort)} aria-pressed={by === sort}>
      {name}
      {by === sort && <span aria-hidden> ▾</span>}
    </UnstyledButton>
  )
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={letGo.detect}
      onDragStart={({ active }) => setDragged(String(active.id))}
      onDragCancel={() => setDragged(null)}
      onDragEnd={({ active }) => {
        setDragged(null)
        const under = letGo.under()
        if (under === null || !mayMove || under === active.id) return
        const folder = under === OUTSIDE ? null : FolderId.parse(under)
        if (records.get('folder', String(active.id))) putFolder(FolderId.parse(active.id), folder)
        else put(MapId.parse(active.id), folder)
      }}
    >
      <Table.ScrollContainer minWidth={260}>
        <Table highlightOnHover aria-rowcount={rows.length + 1}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>{heading('title', 'Map')}</Table.Th>
              <Table.Th ta="right">{heading('topics', 'Topics')}</Table.Th>
              <Table.Th visibleFrom="sm">Reached from</Table.Th>
              <Table.Th ta="right" visibleFrom="sm">
                {heading('links', 'Linked maps')}
              </Table.Th>
              <Table.Th>
                <VisuallyHidden>What can be done</VisuallyHidden>
              </Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody ref={body}>
            <RowSpace height={before} columns={COLUMNS} />
            {visible.map(({ index }) => (
              <Row
                key={rows[index]!.key}
                {...props}
                row={rows[index]!}
                index={index}
                measure={measure}
                isClosed={closed.has(rows[index]!.key)}
                isDraggable={mayMove && hasFolders}
              />
            ))}
            <RowSpace height={after} columns={COLUMNS} />
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
      {dragged && <Outside />}
      <DragOverlay dropAnimation={null}>
        {dragged && (
          <Badge size="lg">
            {(records.get('folder', dragged) ?? maps.find(({ id }) => id === dragged))?.title || 'Untitled'}
          </Badge>
        )}
      </DragOverlay>
    </DndContext>
  )
}

/** Takes what should lie in no folder any more. */
function Outside() {
  const { setNodeRef, isOver } = useDroppable({ id: OUTSIDE })
  return (
    <Text ref={setNodeRef} p="sm" ta="center" bd={`1px dashed var(${isOver ? '--spruce' : '--line'})`}>
      Drop it here to put it into no folder
    </Text>
  )
}

interface RowProps extends Props {
  row: TableRow
  index: number
  measure(element: Element | null): void
  isClosed: boolean
  isDraggable: boolean
}

const indent = (level: number) => ({ paddingLeft: 10 + Math.min(level, 6) * 24 })

/** By which a row is dragged into a folder. */
const Grip = ({
  node,
  listeners,
}: {
  node(element: HTMLElement | null): void
  listeners: DraggableSyntheticListeners
}) => (
  <span ref={node} {...listeners} style={{ cursor: 'grab', touchAction: 'none' }} aria-hidden data-grip>
    <IconGripVertical size={14} color="var(--quiet-ink)" style={{ verticalAlign: '-2px' }} />{' '}
  </span>
)

function Row(props: RowProps) {
  return props.row.kind === 'folder' ? <FolderRow {...props} row={props.row} /> : <MapRow {...props} row={props.row} />
}

function FolderRow({
  row: { folder, level, maps },
  index,
  measure,
  isClosed,
  toggle,
  folderMenu,
  isDraggable,
}: RowProps & { row: Extract<TableRow, { kind: 'folder' }> }) {
  const { setNodeRef, isOver } = useDroppable({ id: folder.id })
  const { setNodeRef: setGrip, listeners } = useDraggable({ id: folder.id, disabled: !isDraggable })
  return (
    <Table.Tr
      ref={(element: HTMLTableRowElement | null) => {
        measure(element)
        setNodeRef(element)
      }}
      data-index={index}
      aria-rowindex={index + 2}
      bg={isOver ? 'var(--spruce-wash)' : 'var(--panel)'}
    >
      <Table.Td style={indent(level)}>
        {isDraggable && <Grip node={setGrip} listeners={listeners} />}
        <ActionIcon
          variant="subtle"
          color="gray"
          size="sm"
          aria-expanded={!isClosed}
          aria-label={`${isClosed ? 'Open' : 'Close'} the folder ${folder.title}`}
          onClick={() => toggle(folder.id)}
        >
          {isClosed ? <IconChevronRight size={16} /> : <IconChevronDown size={16} />}
        </ActionIcon>{' '}
        <IconFolder size={16} aria-hidden style={{ verticalAlign: '-3px' }} /> <b>{folder.title}</b>
      </Table.Td>
      <Table.Td ta="right" colSpan={3}>
        {maps === 1 ? '1 map' : `${maps} maps`}
      </Table.Td>
      <Table.Td ta="right">{folderMenu(folder)}</Table.Td>
    </Table.Tr>
  )
}

function MapRow({
  row: { map, level },
  index,
  measure,
  home,
  limit,
  collection,
  address,
  titleOf,
  menu,
  isDraggable,
}: RowProps & { row: Extract<TableRow, { kind: 'map' }> }) {
  const { setNodeRef, listeners } = useDraggable({ id: map.id, disabled: !isDraggable })
  const { data: peek } = useMapPeek(collection, map.id, String(map.topics), false)
  return (
    <Table.Tr ref={measure} data-index={index} aria-rowindex={index + 2}>
      <Table.Td style={indent(level)}>
        {isDraggable && <Grip node={setNodeRef} listeners={listeners} />}
        <Anchor href={address(map.id)} fw={600} style={{ overflowWrap: 'anywhere' }}>
          {map.title || 'Untitled'}
        </Anchor>{' '}
        {map.id === home && (
          <Badge variant="light" size="sm">
            home map
          </Badge>
        )}
        {(map.topics > limit || peek?.crowding) && (
          <Text span size="sm" c="var(--ember-text)" ml={6} title={peek?.crowding ?? undefined}>
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
}
