import { Skeleton, Text } from '@mantine/core'
import { Suspense, useCallback, useEffect, useRef, useState } from 'react'
import type { IdSource } from '../../core/commands/command'
import { writeNote } from '../../core/commands/write-note'
import type { Records } from '../../core/records/records'
import type { TopicRecord } from '../../core/records/topic'
import { late } from '../app/late'
import type NoteEditor from '../note-editor/NoteEditor'
import type { Pasted } from '../note-editor/NoteEditor'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useMayEdit, useSessionHandle } from '../sync/use-session'
import { workspace } from '../workspace/workspace-store'
import styles from './sheet.module.css'

const CarriedNote = late(() => import('./CarriedNote'))

// The editor is as large as the rest of the workspace: it comes when there is a note to show or one to write.
let arrived: typeof NoteEditor | null = null
const fetchEditor = () =>
  import('../note-editor/NoteEditor').then((module) => {
    arrived = module.default
    return arrived
  })

/** A text with the words of what was pasted into it. */
const asWords = (text: string, pasted: readonly Pasted[]): string =>
  pasted.reduceRight((whole, { at, words }) => whole.slice(0, at) + words + whole.slice(at), text)

interface Props {
  topic: TopicRecord
  /** A number that was not met yet asks for the note to be written in. */
  focusRequest: number
  onFocused(request: number): void
  leave(): void
}

/** The note of a topic. Until the editor is here, an empty one is a plain field, and what is typed there goes along. */
export function NoteSection({ topic, focusRequest, onFocused, leave }: Props) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const { note } = topic
  const text = useCalmPart(
    useCallback(({ records }: CollectionSession) => records.get('note', note)?.text ?? '', [note]),
  )
  const [Editor, setEditor] = useState(() => arrived)
  const [begun, setBegun] = useState(false)
  const [missing, setMissing] = useState(false)
  // The field stays until the editor stands, so that no letter falls between the two.
  const [stands, setStands] = useState(false)
  const field = useRef<HTMLTextAreaElement>(null)
  const taken = useRef(false)
  /** The request after which the person left again. */
  const left = useRef(0)
  /** What was pasted into the field with more than its words, and behind how many letters: the editor puts it there. */
  const pasted = useRef<Pasted[]>([])
  // What the words in the field were begun from: those of others that come meanwhile are joined with them.
  const base = useRef('')
  const wanted = begun || focusRequest > 0 || text.trim() !== ''
  useEffect(() => {
    if (!wanted || Editor) return
    let here = true
    // Without the editor the field goes on, and the next time it is asked for again.
    fetchEditor().then(
      (editor) => here && setEditor(() => editor),
      () => {
        if (!here) return
        if (field.current) field.current.value = asWords(field.current.value, pasted.current)
        pasted.current = []
        setBegun(false)
        setMissing(true)
      },
    )
    return () => {
      here = false
    }
  }, [wanted, Editor])
  useEffect(() => {
    if (focusRequest === 0 || !field.current) return
    field.current.focus()
  }, [focusRequest])
  const write = (text: string) => (records: Records, newIds: IdSource) =>
    writeNote(records, { topic: topic.id, base: base.current, text }, newIds)
  /** Who leaves has been here: an editor that comes later does not call back, not even before the request is known as met. */
  const goElsewhere = () => {
    left.current = focusRequest
    onFocused(focusRequest)
  }
  const waiting = () => {
    if (text.trim() !== '' && !begun && !missing) return <Skeleton height={140} />
    if (!mayEdit)
      return (
        <Text size="sm" c="dimmed">
          There is no note.
        </Text>
      )
    return (
      <textarea
        dir="auto"
        key={topic.id}
        ref={field}
        className={styles.emptyNote}
        aria-label="Note"
        placeholder="Write what lies behind this topic …"
        defaultValue={text}
        onFocus={() => {
          base.current = text
          setBegun(true)
        }}
        onInput={({ currentTarget }) =>
          session.drafts.write({ topic: topic.id, part: 'note' }, () => {
            const words = asWords(currentTarget.value, pasted.current).trim()
            return words === base.current.trim() ? null : session.wouldBe(write(words))
          })
        }
        onBlur={(event) => {
          // Who goes elsewhere is not called back by the editor when it comes. A window that is left, or the editor itself, is no such place.
          const { currentTarget } = event
          setTimeout(() => document.activeElement !== currentTarget && !taken.current && goElsewhere())
          const words = asWords(event.currentTarget.value, pasted.current)
          if (pasted.current.length > 0) event.currentTarget.value = words
          pasted.current = []
          if (taken.current) return
          const isNew = words.trim() !== base.current.trim()
          session.endWriting(
            { topic: topic.id, part: 'note' },
            isNew ? words.trim() : null,
            () => !isNew || session.run(write(words.trim())) !== null,
          )
          base.current = words.trim()
        }}
        onPaste={(event) => {
          const { clipboardData, currentTarget } = event
          const { value, selectionStart } = currentTarget
          const html = clipboardData.getData('text/html')
          if (html === '' || missing || selectionStart !== value.length) return
          event.preventDefault()
          pasted.current.push({ at: value.length, html, words: clipboardData.getData('text/plain') })
        }}
        onKeyDown={(event) => {
          event.stopPropagation()
          if (event.key !== 'Escape') return
          goElsewhere()
          leave()
        }}
      />
    )
  }
  return (
    <div data-note-of={topic.id}>
      {Editor && (
        <div className={stands ? undefined : styles.notYet} aria-hidden={!stands}>
          <Editor
            topic={topic.id}
            text={text}
            takeOver={() => {
              const { current } = field
              taken.current = true
              setStands(true)
              return {
                words: current?.value ?? '',
                pasted: pasted.current,
                focused: current !== null && document.activeElement === current,
                left: left.current,
              }
            }}
            editable={mayEdit}
            focusRequest={left.current === focusRequest ? 0 : focusRequest}
            onFocused={onFocused}
            leave={leave}
            widen={() => workspace.dialog({ kind: 'note', topic: topic.id })}
          />
        </div>
      )}
      {!stands && waiting()}
      {note && text.trim() !== '' && (
        <Suspense>
          <CarriedNote topic={topic} />
        </Suspense>
      )}
    </div>
  )
}
