import { VisuallyHidden } from '@mantine/core'
import { type CSSProperties, type KeyboardEvent, useEffect, useId, useRef, useState } from 'react'
import { setText } from '../../core/commands/set-text'
import { parentOf } from '../../core/records/place'
import { MAX_TOPIC_TEXT } from '../../core/records/text'
import type { TopicRecord } from '../../core/records/topic'
import { addressIn } from '../../core/records/weblink'
import { actByKey, isActKey, keyName } from '../acts/acts'
import { composeChild, composeLoose, composeSibling } from '../acts/compose'
import type { CollectionSession } from '../sync/collection-session'
import { situationOf } from './situation'
import styles from './workspace.module.css'
import { type Pane, useWorkspace, workspace } from './workspace-store'

/** How far below a loose topic the next one is begun, in px; it makes room where there is none. */
const BELOW = 48

/** Keys that are for the map also while a topic is written: what they do is done to that topic, once its text is kept. */
const FOR_THE_MAP = /^(Alt\+|F\d|Ctrl\+(k|\/)$)/
/** On a Mac letters with Alt are signs that somebody writes. */
const WRITES_WITH_ALT = /Mac|iP(hone|ad)/.test(navigator.userAgent)

/**
 * The field in which a topic's text is written, on the map and in the outline. Shift+Enter breaks the line, leaving the field keeps
 * what was written.
 *
 * In a new topic Enter keeps it and begins the next sibling, Tab a child, Shift+Tab the next one a level out, and Esc ends; in one that
 * is empty yet, Tab and Shift+Tab move it there. One that is left empty is none. The text of a topic that was there before ends with
 * Enter; Esc gives up what was written anew.
 */
export function TextField({
  session,
  index,
  editing,
  style,
  onEnd,
}: {
  session: CollectionSession
  index: number
  editing: NonNullable<Pane['editing']>
  style: CSSProperties
  onEnd(): void
}) {
  const [text, setFieldText] = useState(editing.text ?? session.records.get('topic', editing.topic)?.text ?? '')
  /** The text with which the person began. */
  const [base] = useState(() => session.records.get('topic', editing.topic)?.text ?? '')
  const [isNew] = useState(() => session.isComposing(editing.topic))
  const field = useRef<HTMLTextAreaElement>(null)
  const ended = useRef(false)
  const about = useId()
  useEffect(() => {
    const element = field.current
    if (!element) return
    element.focus({ preventScroll: true })
    if (editing.text === null) element.select()
    else element.setSelectionRange(element.value.length, element.value.length)
  }, [editing.text])

  /** Ends the writing; gives the topic with its text, or null where there is none. */
  const end = (kept: string | null): TopicRecord | null => {
    if (ended.current) return null
    ended.current = true
    const { topic } = editing
    const before = session.records.get('topic', topic)
    const reword = (text: string, base?: string) =>
      session.run((records, newIds) => setText(records, { topic, text, base }, newIds)) !== null
    const words = kept === base ? null : kept
    session.endWriting({ topic, part: 'text' }, words, () => {
      if (!session.isComposing(topic)) return words === null || reword(words, base)
      const isAdded = session.finishComposing(kept)
      if (isAdded && words !== null && addressIn(words) !== null) reword(words)
      return isAdded
    })
    const still = session.records.get('topic', topic)
    if (useWorkspace.getState().panes[index]?.editing?.topic === topic) {
      workspace.edit(index, null)
      const back = editing.from ?? (before && parentOf(before))
      if (!still) workspace.select(index, back ? [back] : [])
    }
    return still ?? null
  }
  const change = (text: string) => {
    const { topic } = editing
    setFieldText(text)
    session.drafts.write({ topic, part: 'text' }, () =>
      session.isComposing(topic)
        ? session.composedAs(text)
        : session.wouldBe((records, newIds) => setText(records, { topic, text, base }, newIds)),
    )
  }
  /** The same with the keyboard back on the map or in the outline. */
  const leave = (kept: string | null) => {
    const written = end(kept)
    onEnd()
    return written
  }

  // Where the topic is folded away, or its map or the page is left, before the field is.
  const leaveNow = useRef(() => {})
  leaveNow.current = () => void end(text)
  useEffect(() => () => leaveNow.current(), [])

  /** Goes on with the next new topic, or moves this one, as long as it is empty, to where that would be. */
  const goOn = (towards: 'sibling' | 'child' | 'out') => {
    const isEmpty = text.trim() === ''
    const here = session.records.get('topic', editing.topic)
    if (!here || (isEmpty && towards === 'sibling')) return
    const parent = session.records.get('topic', parentOf(here))
    const siblings = parent ? session.records.children(parent.id) : []
    const before = siblings[siblings.findIndex(({ id }) => id === here.id) - 1]
    // Where it cannot go it stays.
    if (towards === 'out' && (!parent || parentOf(parent) === null)) return
    if (isEmpty && towards === 'child' && !before) return
    const written = end(isEmpty ? null : text) ?? here
    const situation = situationOf(session, index)
    if (towards === 'sibling' && written.place.kind === 'loose')
      composeLoose(situation, written.place.x, written.place.y + BELOW)
    else if (towards === 'sibling') composeSibling(situation, written)
    else if (towards === 'out') composeSibling(situation, parent!)
    else composeChild(situation, isEmpty ? before! : written)
  }

  const press = (event: KeyboardEvent) => {
    event.stopPropagation()
    if (event.nativeEvent.isComposing) return
    const key = keyName(event)
    const isEmpty = isNew && text.trim() === ''
    if (key === 'Escape') leave(isNew ? text : null)
    else if ((key === 'Enter' || key === 'Ctrl+Enter') && isNew) goOn('sibling')
    else if (key === 'Enter' || key === 'Ctrl+Enter') leave(text)
    else if (key === 'Tab' && isNew) goOn('child')
    else if (key === 'Shift+Tab' && isNew) goOn('out')
    else if (key === 'Tab' || key === 'Shift+Tab') {
      const written = leave(text)
      if (written && key === 'Tab') composeChild(situationOf(session, index), written)
    } else if (isEmpty && /^(Arrow|Backspace$)/.test(key)) {
      // Back to the topic before.
      leave(null)
    } else if (isEmpty && /^Ctrl\+(Shift\+)?[zy]$/.test(key)) {
      leave(null)
      actByKey(key, situationOf(session, index))
    } else if (
      FOR_THE_MAP.test(key) &&
      isActKey(key) &&
      !event.getModifierState('AltGraph') &&
      !(WRITES_WITH_ALT && key.startsWith('Alt+') && !isEmpty)
    ) {
      leave(text)
      actByKey(key, situationOf(session, index))
    } else return
    event.preventDefault()
  }

  return (
    <>
      <textarea
        dir="auto"
        ref={field}
        className={styles.textField}
        style={style}
        value={text}
        aria-label="Text of the topic"
        aria-describedby={about}
        maxLength={MAX_TOPIC_TEXT}
        rows={1}
        onChange={(event) => change(event.currentTarget.value)}
        onBlur={() => void end(text)}
        onPointerDown={(event) => event.stopPropagation()}
        onKeyDown={press}
      />
      <VisuallyHidden id={about}>{isNew ? standsWhere(session, editing.topic) : ''}</VisuallyHidden>
    </>
  )
}

/** Where a new topic stands, in words: below what, and behind what. */
function standsWhere(session: CollectionSession, id: TopicRecord['id']): string {
  const topic = session.records.get('topic', id)
  const parent = topic && session.records.get('topic', parentOf(topic))
  if (!parent) return 'A new topic that stands alone'
  const siblings = session.records.children(parent.id)
  const before = siblings[siblings.findIndex((other) => other.id === id) - 1]
  return `A new topic below ${parent.text || 'Untitled'}${before ? `, after ${before.text || 'Untitled'}` : ''}`
}
