import { useEffect, useRef } from 'react'
import { pourTopics } from '../../core/commands/hang-items'
import type { TopicId } from '../../core/records/ids'
import { halfWritten, keepHalfWritten } from '../app/half-written'
import type { CollectionSession } from '../sync/collection-session'
import { tellHappened } from '../workspace/happened'
import { workspace } from '../workspace/workspace-store'
import styles from './stage.module.css'

const STEP = '  '

/** Under what is kept that a person has poured and not hung on; the topic follows. */
export const pouredOn = (person: string): string => `pour:${person}:`

const undoIt = (session: CollectionSession) => ({ name: 'Undo', go: () => void session.takeBack('undo') })

/**
 * The column in which ideas are poured out, one line after the other, indented as they are typed. Esc ends it and
 * everything hangs on the topic; nothing has to be placed or named first.
 */
export function PourPanel({
  session,
  index,
  topic,
  onEnd,
}: {
  session: CollectionSession
  index: number
  topic: TopicId
  onEnd(): void
}) {
  const field = useRef<HTMLTextAreaElement>(null)
  const name = pouredOn(session.person) + topic
  useEffect(() => field.current?.focus(), [])
  /** Hangs on what was poured; null where it cannot be, and then it stays. */
  const hang = (): readonly TopicId[] | null => {
    const text = halfWritten(name)
    const made = text.trim() === '' ? [] : session.run((all, newIds) => pourTopics(all, { topic, text }, newIds))
    if (made) keepHalfWritten(name, '')
    return made
  }
  const end = () => {
    const select = hang()
    if (!select) return
    if (select.length > 0) workspace.select(index, select)
    workspace.pour(null)
    onEnd()
  }
  // Where the map is left, what was poured is not.
  const leave = useRef(hang)
  leave.current = hang
  useEffect(
    () => () => {
      const left = leave.current()
      if (left && left.length > 0) tellHappened('What was poured hangs on its topic', [undoIt(session)])
    },
    [session],
  )
  return (
    <section className={styles.pour} data-side="right" aria-label="Pouring" data-taken>
      <h2>Onto {session.nameOf(topic)?.text || 'this topic'}</h2>
      <textarea
        ref={field}
        aria-label="Ideas, one line after the other"
        placeholder="One idea a line. Tab indents."
        defaultValue={halfWritten(name)}
        onInput={(event) => keepHalfWritten(name, event.currentTarget.value)}
        onPointerDown={(event) => event.stopPropagation()}
        onKeyDown={(event) => {
          event.stopPropagation()
          const { currentTarget: at } = event
          if (event.key === 'Escape') {
            event.preventDefault()
            end()
          } else if (event.key === 'Tab') {
            event.preventDefault()
            indent(at, event.shiftKey)
            keepHalfWritten(name, at.value)
          } else if (event.key === 'Enter' && !event.nativeEvent.isComposing) {
            event.preventDefault()
            const line = at.value.slice(at.value.lastIndexOf('\n', at.selectionStart - 1) + 1, at.selectionStart)
            insert(at, `\n${/^ */.exec(line)?.[0] ?? ''}`)
            keepHalfWritten(name, at.value)
          }
        }}
      />
      <div>
        <button type="button" onClick={end}>
          Hang them on (Esc)
        </button>
        <button
          type="button"
          onClick={() => {
            keepHalfWritten(name, '')
            workspace.pour(null)
            onEnd()
          }}
        >
          Throw away
        </button>
      </div>
    </section>
  )
}

function insert(field: HTMLTextAreaElement, text: string): void {
  field.setRangeText(text, field.selectionStart, field.selectionEnd, 'end')
}

/** Moves the line of the cursor in or out by one step. */
function indent(field: HTMLTextAreaElement, out: boolean): void {
  const { value, selectionStart } = field
  const begin = value.lastIndexOf('\n', selectionStart - 1) + 1
  const moveCursor = (by: number) => {
    const at = Math.max(begin, selectionStart + by)
    field.setSelectionRange(at, at)
  }
  if (!out) {
    field.setRangeText(STEP, begin, begin)
    moveCursor(STEP.length)
  } else if (value.startsWith(STEP, begin)) {
    field.setRangeText('', begin, begin + STEP.length)
    moveCursor(-STEP.length)
  }
}
