import type { ClipboardEvent, KeyboardEvent } from 'react'
import { headsOnly } from '../../core/commands/move-topics'
import { hangItems, pasteOutline } from '../../core/commands/paste-outline'
import { writeIndentedText } from '../../core/formats/indented-text'
import { outlineOf } from '../../core/formats/outline-of'
import type { TopicId } from '../../core/records/ids'
import type { Situation } from './act'
import { actByKey, keyName } from './acts'
import { type Pane, workspace } from './workspace-store'

/** Where arrows lead; differs between the faces. */
export type Navigate = (from: TopicId, key: 'ArrowUp' | 'ArrowDown' | 'ArrowLeft' | 'ArrowRight') => TopicId | null

const isArrow = (key: string): key is Parameters<Navigate>[1] => /^Arrow(Up|Down|Left|Right)$/.test(key)

/** What a key does while topics are selected and none is being written. The faces of a map share it. */
export function handleTreeKey(event: KeyboardEvent, situation: Situation, navigate: Navigate): void {
  if (event.nativeEvent.isComposing) return
  const { index, topics, session } = situation
  const key = keyName(event)
  const last = topics.at(-1)
  if (isArrow(event.key) && !event.ctrlKey && !event.altKey && !event.metaKey) {
    const to = last ? navigate(last.id, event.key) : (session.records.root(situation.pane.map)?.id ?? null)
    if (to) workspace.select(index, event.shiftKey ? [...new Set([...topics.map(({ id }) => id), to])] : [to])
    event.preventDefault()
  } else if (actByKey(key, situation)) event.preventDefault()
  else if (event.key === 'Escape') workspace.select(index, last ? [last.id] : [])
  else if (
    event.key.length === 1 &&
    event.key !== ' ' &&
    !event.ctrlKey &&
    !event.metaKey &&
    !event.altKey &&
    topics.length === 1 &&
    session.mayEdit
  ) {
    workspace.edit(index, { topic: topics[0]!.id, text: event.key })
    event.preventDefault()
  }
}

/** The selected branches as a clean indented list. */
function copiedText({ session, topics }: Situation): string {
  const heads = headsOnly(
    session.records,
    topics.map(({ id }) => id),
  )
  return writeIndentedText(heads.map((head) => outlineOf(session.records, head)))
}

/** Hangs what was copied or dragged from elsewhere onto a topic: structure where there is some, else line by line. */
export async function takeOver(
  { session, index }: Situation,
  onto: TopicId,
  { html, text }: { html: string; text: string },
): Promise<void> {
  // Our own lists come as plain text; HTML is read only where it keeps more than the plain text does.
  const items = html === '' ? null : (await import('../../core/formats/html-outline')).readHtml(html)
  if (!items && text.trim() === '') return
  const select = session.run((records, making) =>
    items
      ? hangItems(records, { topic: onto, items, act: 'Paste' }, making)
      : pasteOutline(records, { topic: onto, text }, making),
  )
  if (select) workspace.select(index, select)
}

/**
 * Copying the selected branches as a clean list, and pasting onto the last one, or onto the root where none is selected;
 * unless a text is being written.
 */
export const clipboardHandlers = (situation: () => Situation, pane: Pane) => ({
  onCopy(event: ClipboardEvent): void {
    if (pane.editing) return
    event.clipboardData.setData('text/plain', copiedText(situation()))
    event.preventDefault()
  },
  onPaste(event: ClipboardEvent): void {
    if (pane.editing) return
    const { session, topics } = situation()
    const onto = topics.at(-1) ?? session.records.root(pane.map)
    event.preventDefault()
    const files = [...event.clipboardData.files]
    if (onto && files.length > 0 && event.clipboardData.getData('text/plain') === '')
      void import('../pictures/send-picture').then(({ takeFiles }) => takeFiles(session, files, { topic: onto.id }))
    else if (onto) void takeOver(situation(), onto.id, contentsOf(event.clipboardData))
  },
})

export const contentsOf = (from: DataTransfer) => ({
  html: from.getData('text/html'),
  text: from.getData('text/plain'),
})
