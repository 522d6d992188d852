import { DndContext, DragOverlay, PointerSensor, useDroppable, useSensor, useSensors } from '@dnd-kit/core'
import { Button, Group, Text } from '@mantine/core'
import { IconSearch } from '@tabler/icons-react'
import { type KeyboardEvent, type ReactNode, useCallback, useMemo, useRef, useState } from 'react'
import { joinBands, makeBand, putUnderHeading } from '../../core/commands/bands'
import { pourTopics } from '../../core/commands/hang-items'
import { moveTopics } from '../../core/commands/move-topics'
import { setText } from '../../core/commands/set-text'
import { pourToPlace } from '../../core/commands/to-place'
import type { TopicId } from '../../core/records/ids'
import { parentOf } from '../../core/records/place'
import type { TopicRecord } from '../../core/records/topic'
import { announce } from '../app/announce'
import { FullWindow } from '../app/FullWindow'
import { useLetGo } from '../app/let-go'
import { rangeBetween } from '../app/range'
import { useSession } from '../sync/use-session'
import { PourField } from '../to-place/ToPlace'
import { type Sortable, useWorkspace } from '../workspace/workspace-store'
import { type BandActs, BandRow } from './BandRow'
import { Becomes } from './Becomes'
import { FromSearch } from './FromSearch'
import { Item } from './Item'
import { SuggestionLine } from './SuggestionLine'
import styles from './sorting.module.css'
import { type Suggestion, useSorting } from './use-sorting'
import { focusNext, step, TypedSearch } from './walk-items'

const NEW_BAND = 'new band'
const POOL = 'pool'
const MOST_DIGITS = 9

/** Puts ideas, or what hangs on a topic, into groups: everything is done at once on the records and can be undone. */
export default function SortingTable({ what, onClose }: { what: Sortable; onClose(): void }) {
  const session = useSession()
  const { records, mayEdit } = session
  const { active, panes } = useWorkspace()
  const { table, bands, holder, suggestions, isLooking, mark, unmark, refuse } = useSorting(what)
  const [marked, setMarked] = useState<readonly TopicId[]>([])
  const [dragged, setDragged] = useState<TopicId | null>(null)
  /** The band of which the title is to be written. */
  const [naming, setNaming] = useState<TopicId | null>(null)
  const [isSearching, setSearching] = useState(false)
  const named = useCallback(() => setNaming(null), [])
  const room = useRef<HTMLDivElement>(null)
  const search = useRef(new TypedSearch())
  const letGo = useLetGo()
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }))
  const items = useMemo(() => [...bands.flatMap(({ band }) => band.items), ...table.pool], [bands, table])
  const order = useRef<readonly TopicId[]>([])
  order.current = items.map(({ id }) => id)
  const chosen = marked.filter((id) => items.some((item) => item.id === id))
  const choose = useCallback(
    (topic: TopicId, more: boolean, isRange: boolean) =>
      setMarked((before) => {
        if (isRange) return [...new Set([...before, ...rangeBetween(order.current, before.at(-1), topic)])]
        if (before.includes(topic)) return before.filter((id) => id !== topic)
        return more || before.length > 1 ? [...before, topic] : [topic]
      }),
    [],
  )
  const nameOf = (topic: string) => records.get('topic', topic)?.text || 'Untitled'
  const selected = records.get('topic', panes[active]?.selected[0] ?? null)
  const onMap = panes[active] && records.root(panes[active].map)
  const target = 'branch' in what ? records.get('topic', what.branch) : (selected ?? onMap)

  const move = (topics: readonly TopicId[], parent: string | null) => {
    if (!parent || topics.length === 0) return
    for (const id of topics) {
      const topic = records.get('topic', id)
      // A band that gives away its last item is a band still.
      const from = topic && parentOf(topic)
      if (from && from !== holder) mark(from)
    }
    if (
      session.run((r, newIds) =>
        moveTopics(r, { topics, parent: parent as TopicId, after: 'last', side: null }, newIds),
      )
    ) {
      setMarked([])
      announce(
        parent === holder ? 'Among what is left' : `In the band ${records.get('topic', parent)?.text || 'Untitled'}`,
      )
    }
  }
  const makeNew = (topics: readonly TopicId[], title = '') => {
    if (!holder) return
    const made = session.run((r, newIds) => makeBand(r, { holder: holder as TopicId, title, items: topics }, newIds))
    if (!made) return
    mark(made[0]!)
    setMarked([])
    if (title === '') setNaming(made[0]!)
  }
  const promote = (topic: TopicId) => {
    mark(topic)
    setMarked([])
    if (holder && parentOf(records.need('topic', topic)) !== holder) move([topic], holder)
    setNaming(topic)
  }
  const take = (suggestion: Suggestion) => {
    if (!holder) return
    const { kind, topics, words } = suggestion
    refuse(suggestion)
    if (kind === 'home') return move(topics, suggestion.band)
    const word = words[0] ?? ''
    const title = word.charAt(0).toLocaleUpperCase() + word.slice(1)
    if (kind === 'band') return makeNew(topics, title)
    const made = session.run((r, newIds) =>
      putUnderHeading(r, { holder: holder as TopicId, title, bands: topics }, newIds),
    )
    if (made) setNaming(made[0]!)
  }
  const show = ({ topics }: Suggestion) => {
    setMarked(topics)
    const first = room.current?.querySelector(`[data-item="${topics[0]}"], [data-title="${topics[0]}"]`)
    first?.scrollIntoView({ block: 'nearest' })
  }
  const press = (event: KeyboardEvent) => {
    const focused = (event.target as Element).closest('[data-item]')?.getAttribute('data-item') as TopicId | null
    const going = chosen.length > 0 ? chosen : focused ? [focused] : []
    if (event.ctrlKey || event.metaKey || event.altKey) {
      if (event.key.toLowerCase() === 'z') {
        event.preventDefault()
        void session.takeBack(event.shiftKey ? 'redo' : 'undo')
      }
      return
    }
    if (/^[1-9]$/.test(event.key)) {
      const band = bands[Number(event.key) - 1]
      if (mayEdit && band && going.length > 0) {
        focusNext(room.current, focused)
        move(going, band.band.topic.id)
      }
    } else if (event.key === '0' && mayEdit) makeNew(going)
    else if (event.key === 'Enter' && focused && mayEdit) promote(focused)
    else if (event.key.startsWith('Arrow') && focused) step(room.current, focused, event.key)
    else if (event.key === ' ' || event.key === 'Escape') return
    else if (event.key.length === 1) search.current.type(event.key, items, room.current)
    else return
    event.preventDefault()
  }
  const others = bands.map(({ band }) => ({ id: band.topic.id as string, name: band.topic.text || 'Untitled' }))
  const actsOf = (topic: TopicRecord): BandActs => {
    const run = (command: Parameters<typeof session.run>[0]) => void session.run(command)
    return {
      rename: (text) => {
        if (text.trim() !== topic.text) run((r, newIds) => setText(r, { topic: topic.id, text: text.trim() }, newIds))
      },
      moveBy: (by) => {
        const parent = parentOf(topic)
        const row = bands.filter(({ band }) => parentOf(band.topic) === parent).map(({ band }) => band.topic.id)
        const at = row.indexOf(topic.id)
        const [moved, after] = by < 0 ? [row[at - 1], topic.id] : [topic.id, row[at + 1]]
        if (parent && moved && after)
          run((r, newIds) => moveTopics(r, { topics: [moved], parent, after, side: null }, newIds))
      },
      joinInto: (band) => run((r, newIds) => joinBands(r, { into: band as TopicId, from: topic.id }, newIds)),
      dissolve: () => {
        unmark(topic.id)
        move(
          records.children(topic.id).map(({ id }) => id),
          holder,
        )
        unmark(topic.id)
      },
      inside: (band) => move([topic.id], band ?? holder),
    }
  }
  const itemsOf = (of: readonly TopicRecord[]): ReactNode =>
    of.map(({ id, text }) => (
      <Item
        key={id}
        id={id}
        text={text}
        isChosen={chosen.includes(id)}
        isFaint={dragged !== null && chosen.includes(id) && chosen.includes(dragged)}
        choose={choose}
      />
    ))
  const going = dragged && chosen.includes(dragged) ? chosen : dragged ? [dragged] : []
  const name = 'branch' in what ? nameOf(what.branch) : `what is to be placed on ${session.titleOf(what.drawer)}`
  return (
    <FullWindow
      label="Sorting table"
      title={`Sort ${name}`}
      beside={
        <Button
          variant="default"
          size="compact-sm"
          disabled={!session.undoable.undo}
          onClick={() => void session.takeBack('undo')}
        >
          Undo
        </Button>
      }
      isCovered={isSearching}
      onClose={onClose}
      onKeyDown={press}
    >
      <DndContext
        sensors={sensors}
        collisionDetection={letGo.detect}
        onDragStart={({ active: held }) => setDragged(held.id as TopicId)}
        onDragCancel={() => setDragged(null)}
        onDragEnd={() => {
          setDragged(null)
          const under = letGo.under()
          if (under === null || !mayEdit) return
          if (under === NEW_BAND) makeNew(going)
          else if (under === POOL) move(going, holder)
          else move(going, under.slice('into '.length))
        }}
      >
        <div ref={room} className={styles.table}>
          <SuggestionLine
            suggestions={mayEdit ? suggestions : []}
            isLooking={isLooking}
            nameOf={nameOf}
            onYes={take}
            onNo={refuse}
            onShow={show}
          />
          <div className={styles.bands}>
            {bands.map(({ band, level }, i) => (
              <BandRow
                key={band.topic.id}
                topic={band.topic}
                level={level}
                digit={i < MOST_DIGITS ? i + 1 : null}
                others={others.filter(({ id }) => id !== band.topic.id)}
                acts={actsOf(band.topic)}
                mayEdit={mayEdit}
                isNaming={naming === band.topic.id}
                onNamed={named}
              >
                {itemsOf(band.items)}
                {band.items.length === 0 && band.bands.length === 0 && (
                  <Text size="sm" className={styles.quiet}>
                    Drag items here{i < MOST_DIGITS ? `, or choose them and press ${i + 1}` : ''}.
                  </Text>
                )}
              </BandRow>
            ))}
            {mayEdit && <NewBand onPress={() => makeNew(chosen)} count={chosen.length} />}
          </div>
          <Pool count={table.pool.length}>
            {mayEdit && (
              <Group gap="xs" wrap="nowrap" align="center" className={styles.bringing}>
                <PourField
                  onPour={(text) =>
                    session.run((r, newIds) =>
                      'drawer' in what
                        ? pourToPlace(r, { map: what.drawer, text }, newIds)
                        : pourTopics(r, { topic: what.branch, text }, newIds),
                    ) !== null
                  }
                />
                <Button
                  variant="default"
                  size="compact-sm"
                  leftSection={<IconSearch size={14} />}
                  onClick={() => setSearching(true)}
                >
                  From a search …
                </Button>
              </Group>
            )}
            <div className={styles.items}>{itemsOf(table.pool)}</div>
          </Pool>
          {target && mayEdit && (
            <Becomes
              bands={table.bands.map(({ topic }) => topic.id)}
              target={target}
              isThere={'branch' in what}
              index={active}
              onDone={onClose}
            />
          )}
        </div>
        {isSearching && (
          <FromSearch
            here={new Set([...items, ...bands.map(({ band }) => band.topic)].map(({ id }) => id))}
            bring={async (topics, copies) =>
              (await session.server.command('gather-topics', { topics: [...topics], into: what, copies })) !== null
            }
            onClose={() => setSearching(false)}
          />
        )}
        <DragOverlay dropAnimation={null}>
          {dragged && (
            <div className={styles.carried}>{going.length > 1 ? `${going.length} items` : nameOf(dragged)}</div>
          )}
        </DragOverlay>
      </DndContext>
    </FullWindow>
  )
}

function NewBand({ count, onPress }: { count: number; onPress(): void }) {
  const { setNodeRef, isOver } = useDroppable({ id: NEW_BAND })
  return (
    <button ref={setNodeRef} type="button" className={styles.newBand} data-over={isOver || undefined} onClick={onPress}>
      <span className={styles.digit} aria-hidden>
        0
      </span>
      {count === 0 ? 'New band' : `New band with ${count === 1 ? 'this item' : `these ${count} items`}`}
    </button>
  )
}

function Pool({ count, children }: { count: number; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: POOL })
  return (
    <section ref={setNodeRef} className={styles.pool} data-over={isOver || undefined} aria-label="Not sorted yet">
      <Group gap="xs" className={styles.left}>
        <Text size="sm" fw={600}>
          {count === 0 ? 'All is sorted' : `${count} left`}
        </Text>
        <Text size="xs" className={styles.quiet}>
          A digit sends what is chosen to its band, 0 makes a new one, Enter makes an item the title of one.
        </Text>
      </Group>
      {children}
    </section>
  )
}
