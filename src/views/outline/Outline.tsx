import { Loader } from '@mantine/core'
import { IconChevronDown, IconChevronRight, IconPoint } from '@tabler/icons-react'
import { useVirtualizer } from '@tanstack/react-virtual'
import { Suspense, useCallback, useMemo, useRef, useState } from 'react'
import { foldTopics } from '../../core/commands/fold-topics'
import type { OutlineForm } from '../../core/formats/outline-text'
import type { TopicId } from '../../core/records/ids'
import { parentOf } from '../../core/records/place'
import type { Records } from '../../core/records/records'
import type { TopicRecord } from '../../core/records/topic'
import { counted } from '../../core/text/counted'
import { noteBeginning } from '../../core/text/note-beginning'
import { isEmpty, matches } from '../../core/tree/filter'
import { mapNumbers } from '../../core/tree/map-numbers'
import TopicMenu from '../acts/TopicMenu'
import { late } from '../app/late'
import { rangeBetween } from '../app/range'
import { calendarHere } from '../app/when'
import { useSession } from '../sync/use-session'
import { clipboardHandlers } from '../workspace/clipboard'
import { situationOf } from '../workspace/situation'
import { TextField } from '../workspace/TextField'
import { backToFace } from '../workspace/take-focus'
import { daysOf, framesOf } from '../workspace/told-of'
import { handleTreeKey, type Navigate } from '../workspace/tree-keys'
import { useShownRow } from '../workspace/use-shown-row'
import { type Pane, workspace } from '../workspace/workspace-store'
import styles from './outline.module.css'

interface Row {
  topic: TopicRecord
  level: number
  children: number
  position: number
  of: number
}

/** The visible rows of a map, or of one branch alone, in reading order. */
function rowsOf(records: Records, map: string, only: TopicId | null): Row[] {
  const root = records.root(map)
  const head = records.get('topic', only)
  const heads = head ? [head] : [...(root ? [root] : []), ...records.looseBranches(map)]
  const rows: Row[] = []
  const waiting: Row[] = []
  const push = (topics: readonly TopicRecord[], level: number) => {
    for (let i = topics.length - 1; i >= 0; i--) {
      const topic = topics[i]!
      waiting.push({ topic, level, children: records.children(topic.id).length, position: i + 1, of: topics.length })
    }
  }
  push(heads, 0)
  for (let row = waiting.pop(); row; row = waiting.pop()) {
    rows.push(row)
    if (!row.topic.folded || row.level === 0) push(records.children(row.topic.id), row.level + 1)
  }
  return rows
}

// The text editor is larger than the rest of the outline.
const OutlineText = late(() => import('./OutlineText'))

const FORMS: readonly [OutlineForm | null, name: string, title: string][] = [
  [null, 'List', 'Topic by topic, with the same keys as on the map'],
  ['list', 'Text', 'To write in: an indented list'],
  ['headings', 'CommonMark', 'To write in: headings and lists'],
]

/** The face *Outline*: the map as an indented list, or as text to write in. */
export default function Outline({ pane, index }: { pane: Pane; index: number }) {
  const session = useSession()
  const head = pane.only ?? session.records.root(pane.map)?.id
  return (
    <div className={styles.frame}>
      <fieldset className={styles.choice} aria-label="Outline as">
        {FORMS.map(([form, name, title]) => (
          <button
            key={name}
            type="button"
            title={title}
            aria-pressed={pane.written === form}
            onClick={() => workspace.writeOutline(index, form)}
          >
            {name}
          </button>
        ))}
      </fieldset>
      {pane.written && head ? (
        <Suspense fallback={<Loader aria-label="Opening the text" />}>
          <OutlineText
            key={`${head} ${pane.written}`}
            head={head}
            form={pane.written}
            title={session.nameOf(head)?.text ?? ''}
          />
        </Suspense>
      ) : (
        <OutlineList pane={pane} index={index} />
      )}
    </div>
  )
}

/** The map as an indented list that can be worked on with the same keys. */
function OutlineList({ pane, index }: { pane: Pane; index: number }) {
  const session = useSession()
  const { version } = session
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const rows = useMemo(() => rowsOf(session.records, pane.map, pane.only), [session, version, pane.map, pane.only])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const numbers = useMemo(() => mapNumbers(session.records, pane.map), [session, version, pane.map])
  const { filter } = pane
  const isFaded = (topic: TopicRecord) =>
    filter !== null && !isEmpty(filter) && !matches(session.records, topic, filter)
  const container = useRef<HTMLDivElement>(null)
  const [menu, setMenu] = useState<{ x: number; y: number } | null>(null)
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => container.current,
    estimateSize: () => 30,
    overscan: 20,
    getItemKey: (i) => rows[i]!.topic.id,
  })
  const selected = new Set<string>(pane.selected)
  const last = pane.selected.at(-1)
  const situation = () => situationOf(session, index)
  const { today } = calendarHere()
  const focusTree = useCallback(() => backToFace(container.current), [])

  useShownRow(
    pane,
    container,
    (id) => rows.findIndex(({ topic }) => topic.id === id),
    (row) => virtual.scrollToIndex(row, { align: 'auto' }),
  )

  const navigate: Navigate = (from, key) => {
    const at = rows.findIndex((row) => row.topic.id === from)
    const row = rows[at]
    if (!row) return null
    if (key === 'ArrowUp') return rows[at - 1]?.topic.id ?? null
    if (key === 'ArrowDown') return rows[at + 1]?.topic.id ?? null
    const fold = (folded: boolean) =>
      session.run((records, newIds) => foldTopics(records, { topics: [from], folded }, newIds))
    if (key === 'ArrowLeft') {
      if (row.children > 0 && !row.topic.folded && row.level > 0) fold(true)
      else return parentOf(row.topic)
    } else if (row.topic.folded && row.children > 0 && row.level > 0) fold(false)
    else if (row.children > 0) return rows[at + 1]?.topic.id ?? null
    return from
  }

  const press = (event: React.PointerEvent, id: TopicId) => {
    if (event.button !== 0 || (event.target as Element).closest('textarea, button')) return
    focusTree()
    const again = pane.selected.length === 1 && pane.selected[0] === id
    if (event.shiftKey && pane.selected.length > 0) {
      const order = rows.map(({ topic }) => topic.id)
      workspace.select(index, [...new Set([...pane.selected, ...rangeBetween(order, pane.selected.at(-1), id)])])
    } else if (event.shiftKey || event.ctrlKey || event.metaKey)
      workspace.select(index, selected.has(id) ? pane.selected.filter((other) => other !== id) : [...pane.selected, id])
    else if (again && session.mayEdit) {
      event.preventDefault()
      workspace.edit(index, { topic: id, text: null })
    } else workspace.select(index, [id])
  }

  return (
    <div
      ref={container}
      className={styles.outline}
      role="tree"
      tabIndex={0}
      aria-label={`Outline of ${session.titleOf(pane.map)}`}
      aria-multiselectable
      aria-describedby="tree-keys"
      aria-activedescendant={last ? `row-${index}-${last}` : undefined}
      onFocus={() => workspace.activate(index)}
      onKeyDown={(event) => {
        if (event.key === 'ContextMenu' || (event.key === 'F10' && event.shiftKey)) {
          event.preventDefault()
          const at = document.getElementById(`row-${index}-${last}`)?.getBoundingClientRect()
          if (at) setMenu({ x: at.left + 40, y: at.bottom })
        } else handleTreeKey(event, situation(), navigate)
      }}
      {...clipboardHandlers(situation, pane)}
    >
      <div className={styles.rows} style={{ height: virtual.getTotalSize() }} role="none">
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index]!
          const { topic } = row
          const editing = pane.editing?.topic === topic.id ? pane.editing : null
          const days = daysOf(topic, today)
          const hasNote = Boolean(topic.note && session.records.get('note', topic.note)?.text.trim())
          const number = numbers.get(topic.id)
          const behind = topic.opensMap ? session.countTopics(topic.opensMap) : null
          const told = [
            `${number ? `${number} ` : ''}${topic.text || 'Untitled'}`,
            ...(behind === null ? [] : [`opens a map with ${counted(behind, 'topic', 'topics')}`]),
            ...(hasNote ? ['Note'] : []),
            ...(days ? [days.words] : []),
            ...framesOf(session.records, topic.id),
          ]
          return (
            <div
              key={topic.id}
              id={`row-${index}-${topic.id}`}
              ref={virtual.measureElement}
              data-index={item.index}
              data-topic={topic.id}
              className={styles.row}
              data-level={Math.min(row.level, 2)}
              data-faded={isFaded(topic) || undefined}
              style={{ transform: `translateY(${item.start}px)`, paddingLeft: 8 + Math.min(row.level, 30) * 22 }}
              role="treeitem"
              tabIndex={-1}
              aria-label={told.join(', ')}
              aria-level={row.level + 1}
              aria-posinset={row.position}
              aria-setsize={row.of}
              aria-selected={selected.has(topic.id)}
              aria-expanded={row.children > 0 ? !topic.folded || row.level === 0 : undefined}
              onPointerDown={(event) => press(event, topic.id)}
              onContextMenu={(event) => {
                event.preventDefault()
                if (!selected.has(topic.id)) workspace.select(index, [topic.id])
                setMenu({ x: event.clientX, y: event.clientY })
              }}
            >
              {row.children > 0 && row.level > 0 ? (
                <button
                  type="button"
                  tabIndex={-1}
                  className={styles.fold}
                  aria-label={topic.folded ? `Unfold ${topic.text}` : `Fold ${topic.text}`}
                  onClick={() =>
                    session.run((records, newIds) =>
                      foldTopics(records, { topics: [topic.id], folded: !topic.folded }, newIds),
                    )
                  }
                >
                  {topic.folded ? <IconChevronRight size={16} /> : <IconChevronDown size={16} />}
                </button>
              ) : (
                <IconPoint size={16} className={styles.point} aria-hidden />
              )}
              <span className={styles.text} dir="auto">
                {editing ? (
                  <TextField
                    key={topic.id}
                    session={session}
                    index={index}
                    editing={editing}
                    onEnd={focusTree}
                    style={{
                      position: 'static',
                      width: '100%',
                      fontSize: 'inherit',
                      fontWeight: 'inherit',
                      lineHeight: 'inherit',
                    }}
                  />
                ) : (
                  <>
                    {number && <span className={styles.number}>{number} </span>}
                    {topic.text || <em>Untitled</em>}
                  </>
                )}
              </span>
              {topic.opensMap && (
                <button
                  type="button"
                  tabIndex={-1}
                  className={styles.door}
                  onClick={() => workspace.go(index, topic.opensMap!, null)}
                  aria-label={`Open the map behind ${topic.text}`}
                >
                  {behind}
                </button>
              )}
              {days && !editing && (
                <span className={styles.days} data-late={days.isLate || undefined}>
                  {days.words}
                </span>
              )}
              {hasNote && !editing && (
                <span className={styles.note}>
                  {noteBeginning(session.records.get('note', topic.note)!.text, BEGINNING)}
                </span>
              )}
            </div>
          )
        })}
      </div>
      {menu && <TopicMenu at={menu} situation={situation()} onClose={() => setMenu(null)} onDone={focusTree} />}
    </div>
  )
}

/** So many letters of a note are shown behind its topic. */
const BEGINNING = 120
