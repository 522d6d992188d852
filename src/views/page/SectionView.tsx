import { Textarea } from '@mantine/core'
import { Suspense, useEffect, useRef, useState } from 'react'
import { addTopic } from '../../core/commands/add-topic'
import type { IdSource } from '../../core/commands/command'
import { deleteTopics } from '../../core/commands/delete-topics'
import { setText } from '../../core/commands/set-text'
import { splitSection } from '../../core/commands/split-section'
import { type Step, stepTopic } from '../../core/commands/step-topic'
import { toneClass } from '../../core/look/families'
import type { TopicId } from '../../core/records/ids'
import { isRoot, parentOf } from '../../core/records/place'
import type { Records } from '../../core/records/records'
import type { TopicRecord } from '../../core/records/topic'
import { TASK_NAMES } from '../../core/scene/signs'
import { late } from '../app/late'
import { sayDays } from '../app/when'
import { followOwn } from '../note-editor/follow'
import { useGathered } from '../stage/use-gathered'
import { useSession } from '../sync/use-session'
import { awaitField } from '../workspace/awaited-field'
import { workspace } from '../workspace/workspace-store'
import { NoteView } from './NoteView'
import styles from './page.module.css'
import { QuietLine } from './QuietLine'
import type { Section, Writing } from './sections'

const NoteEditor = late(() => import('../note-editor/NoteEditor'))

interface Props {
  section: Section
  /** The pane. */
  index: number
  number: string | null
  isSelected: boolean
  writing: Writing | null
  write(writing: Writing | null): void
  goFrom(topic: TopicId, by: -1 | 1): void
}

/** A topic on the page: its number with the way to the map, its heading, a quiet line of what belongs to it, and its note. */
export function SectionView({ section, index, number, isSelected, writing, write, goFrom }: Props) {
  const session = useSession()
  const { topic, level, branch } = section
  const { id } = topic
  const mayEdit = session.mayEdit
  const note = session.records.get('note', topic.note)?.text ?? ''
  const picture = topic.picture && session.pictureAddress(topic.picture.file, 680)
  const inNote = (caret: Writing['caret'] = null) => mayEdit && write({ topic: id, part: 'note', caret })
  /** Goes on in a note by a key: what is typed before its editor stands is kept for it. */
  const goOnIn = (topic: TopicId) => {
    awaitField('field')
    write({ topic, part: 'note', caret: null })
  }
  /** Goes on with the heading of a topic that was just made. */
  const begin = (parts: { base: string; before: string; text: string; after: string }) => {
    const made = session.run((records, newIds) => splitSection(records, { topic: id, ...parts }, newIds))
    if (made) write({ topic: made[0]!, part: 'heading', caret: null, isNew: parts.text === '' })
  }
  /** Goes on with a new topic, below this one or behind the one above it. */
  const beginBeside = (towards: 'child' | 'out') => {
    const parent = session.records.get('topic', parentOf(topic))
    const around = parent && parentOf(parent)
    if (towards === 'out' && !around) return
    const place =
      towards === 'child'
        ? ({ parent: id, after: 'last' } as const)
        : ({ parent: around as TopicId, after: parent!.id } as const)
    const made = session.run((records, newIds) => addTopic(records, { ...place, text: '' }, newIds))
    if (made) write({ topic: made[0]!, part: 'heading', caret: null, isNew: true })
  }
  const go = (address: string) => void followOwn(session, address, id)
  return (
    <section
      className={styles.section}
      data-topic={id}
      data-note-of={id}
      data-level={Math.min(level, 4)}
      data-selected={isSelected || undefined}
      data-line={(level > 1 && note.trim() === '' && session.records.children(id).length === 0) || undefined}
    >
      <button
        type="button"
        className={`${styles.margin} ${level > 0 ? toneClass('spruce', branch % 8) : ''}`}
        title="Show it on the map"
        aria-label={`Show ${topic.text || 'Untitled'} on the map`}
        onClick={() => {
          workspace.select(index, [id])
          workspace.setFace(index, 'map')
        }}
      >
        {number}
      </button>
      <Heading
        section={section}
        isWritten={writing?.part === 'heading'}
        isNew={writing?.isNew ?? false}
        begin={() => write({ topic: id, part: 'heading', caret: null })}
        leave={() => write(null)}
        goOn={() => goOnIn(id)}
        add={() => begin({ base: note, before: note, text: '', after: '' })}
        addBeside={beginBeside}
        writeBefore={goOnIn}
        goFrom={goFrom}
      />
      {picture && <img className={styles.picture} src={picture} alt="" />}
      <QuietLine topic={topic} index={index} />
      {writing?.part === 'note' ? (
        <Suspense fallback={<NoteView text={note} go={go} />}>
          <NoteEditor
            topic={id}
            text={note}
            takeOver={() => ({ words: '', focused: true })}
            editable
            focusRequest={0}
            onFocused={askedNothing}
            stands="in a text"
            caret={writing.caret}
            split={begin}
            leave={() => write(null)}
          />
        </Suspense>
      ) : (
        (note.trim() !== '' || (isSelected && mayEdit)) && (
          <div
            className={styles.reading}
            data-empty={note.trim() === '' || undefined}
            onClick={(event) => {
              if ((event.target as Element).closest('a, button') || window.getSelection()?.toString()) return
              inNote({ x: event.clientX, y: event.clientY })
            }}
          >
            {note.trim() === '' ? 'Write here …' : <NoteView text={note} go={go} />}
          </div>
        )
      )}
      {topic.gathers && <GatheredOnPage topic={topic} index={index} />}
    </section>
  )
}

const NOTHING_SELECTED: readonly TopicId[] = []

/** What a gathered list found, each with the way to it. */
function GatheredOnPage({ topic, index }: { topic: TopicRecord; index: number }) {
  const session = useSession()
  const found = useGathered(session, topic.place.map, NOTHING_SELECTED)?.of(topic)
  if (!found) return null
  if (found.length === 0) return <p className={styles.gathered}>Nothing is gathered here now.</p>
  return (
    <ul className={styles.gathered} aria-label="Gathered here">
      {found.map(({ id, text, place, task, dates }) => (
        <li key={id}>
          <button type="button" onClick={() => workspace.go(index, place.map, id)}>
            {text || 'Untitled'}
          </button>{' '}
          <span>
            {[`in ${session.titleOf(place.map)}`, task ? TASK_NAMES[task] : [], dates ? sayDays(dates) : []]
              .flat()
              .join(', ')}
          </span>
        </li>
      ))}
    </ul>
  )
}

const askedNothing = () => ''

interface HeadingProps {
  section: Section
  isWritten: boolean
  begin(): void
  leave(): void
  /** Goes on into the note. */
  goOn(): void
  /** Whether it was just begun: then Enter and Tab go on with the next one, as on the map. */
  isNew: boolean
  /** Adds a topic after this one. */
  add(): void
  /** Adds one below this one, or a level out. */
  addBeside(towards: 'child' | 'out'): void
  /** Goes into the note of another topic. */
  writeBefore(topic: TopicId): void
  goFrom(topic: TopicId, by: -1 | 1): void
}

const STEPS: Record<string, Step> = {
  'Alt+ArrowRight': 'in',
  'Alt+ArrowLeft': 'out',
  'Alt+ArrowUp': 'up',
  'Alt+ArrowDown': 'down',
}

/** The text of a topic as a heading, written where it stands. */
function Heading({
  section: { topic, level },
  isWritten,
  isNew,
  begin,
  leave,
  goOn,
  add,
  addBeside,
  writeBefore,
  goFrom,
}: HeadingProps) {
  const session = useSession()
  const [text, setOwn] = useState(topic.text)
  /** The text with which the person began, and the one that stands in the field. */
  const base = useRef(topic.text)
  const now = useRef(text)
  now.current = text
  const input = useRef<HTMLTextAreaElement>(null)
  const Level = `h${Math.min(level + 2, 6)}` as 'h2'
  useEffect(() => {
    // What is being written stays when somebody else rewords it.
    if (now.current !== base.current && now.current.trim() !== base.current) return
    base.current = topic.text
    setOwn(topic.text)
  }, [topic.text])
  useEffect(() => {
    if (isWritten) input.current?.focus()
  }, [isWritten])
  const field = { topic: topic.id, part: 'text' } as const
  const reword = (text: string) => (records: Records, newIds: IdSource) =>
    setText(records, { topic: topic.id, text: text.trim(), base: base.current }, newIds)
  const keep = () => {
    const isNew = text !== base.current && text.trim() !== base.current
    session.endWriting(field, isNew ? text.trim() : null, () => !isNew || session.run(reword(text)) !== null)
    if (isNew) base.current = text.trim()
  }
  const keepNow = useRef(keep)
  keepNow.current = keep
  // Where the page is left, or the topic goes elsewhere, before the heading is.
  useEffect(() => () => keepNow.current(), [])
  const change = (text: string) => {
    setOwn(text)
    session.drafts.write(field, () => session.wouldBe(reword(text)))
  }
  const isEmpty = text.trim() === '' && !topic.note && session.records.children(topic.id).length === 0
  const remove = () => {
    if (!isEmpty || isRoot(topic)) return false
    goFrom(topic.id, -1)
    session.run((records, newIds) => deleteTopics(records, { topics: [topic.id] }, newIds))
    return true
  }
  /** Steps this topic, which is written, to where the next one would be; its text is kept. */
  const step = (to: Step) => {
    keep()
    session.run((records, newIds) => stepTopic(records, { topic: topic.id, step: to }, newIds))
  }
  /** Enter in a new heading goes on with the next one; in an empty one it is none, and the text goes on before it. */
  const goOnNew = () => {
    if (text.trim() !== '') {
      keep()
      return add()
    }
    const siblings = session.records.children(parentOf(topic) ?? '')
    const before = siblings[siblings.findIndex(({ id }) => id === topic.id) - 1]?.id ?? parentOf(topic)
    if (remove() && before) writeBefore(before)
  }
  /** A new topic that is left empty is none. One that lost the keyboard because it was moved has it back. */
  const leaveNew = () => {
    const at = document.activeElement
    if (at === input.current || !session.records.get('topic', topic.id)) return
    if (at === document.body && input.current?.isConnected) input.current.focus()
    else if (isEmpty && !isRoot(topic))
      session.run((records, newIds) => deleteTopics(records, { topics: [topic.id] }, newIds))
  }
  if (!session.mayEdit) return <Level className={styles.heading}>{topic.text || 'Untitled'}</Level>
  return (
    <Level className={styles.heading}>
      <Textarea
        ref={input}
        variant="unstyled"
        autosize
        dir="auto"
        aria-label={`Heading, level ${level + 1}`}
        placeholder="Untitled"
        classNames={{ input: styles.headingField }}
        value={text}
        onChange={(event) => change(event.currentTarget.value.replace(/\n+/g, ' '))}
        onFocus={() => !isWritten && begin()}
        onBlur={() => {
          keep()
          if (isNew) setTimeout(leaveNew)
        }}
        onKeyDown={(event) => {
          event.stopPropagation()
          if (event.nativeEvent.isComposing) return
          const { selectionStart, selectionEnd, value } = event.currentTarget
          const key = `${event.altKey ? 'Alt+' : ''}${event.shiftKey ? 'Shift+' : ''}${event.key}`
          if (STEPS[key]) step(STEPS[key])
          else if (isNew && key === 'Enter') goOnNew()
          else if (isNew && (key === 'Tab' || key === 'Shift+Tab')) {
            if (text.trim() === '') step(key === 'Tab' ? 'in' : 'out')
            else {
              keep()
              addBeside(key === 'Tab' ? 'child' : 'out')
            }
          } else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
            keep()
            add()
          } else if (event.key === 'Enter') {
            keep()
            goOn()
          } else if (event.key === 'Escape') leave()
          else if (event.key === 'ArrowUp' && selectionEnd === 0) goFrom(topic.id, -1)
          else if (event.key === 'ArrowDown' && selectionStart === value.length) goFrom(topic.id, 1)
          else if (!(event.key === 'Backspace' && value === '' && remove())) return
          event.preventDefault()
        }}
      />
    </Level>
  )
}
