import type { NoteId } from '../records/ids'
import type { TopicRecord } from '../records/topic'
import type { Draft } from './command'

/**
 * Puts the note of `from` onto `into`. Where both have one, the texts are joined in the note of `into`, equal ones
 * once. Returns the note that `into` must now carry where that is another one, else null.
 */
export function joinNotes(draft: Draft, into: TopicRecord, from: TopicRecord): NoteId | null {
  const own = draft.records.get('note', into.note)
  const other = draft.records.get('note', from.note)
  if (!other || other.text.trim() === '') return null
  if (!own) return other.id
  if (own.text.trim() !== other.text.trim()) draft.update('note', own.id, { text: joinTexts(own.text, other.text) })
  return null
}

/** One text after the other with an empty line between. */
export const joinTexts = (first: string, second: string): string =>
  first.trim() === '' ? second : `${first.replace(/\n+$/, '')}\n\n${second.replace(/^\n+/, '')}`
