import type { TopicRecord } from '../records/topic'
import { joinTexts } from '../text/join-texts'
import type { NewChange } from './command'

/**
 * Gives `into` the note of `from` too: where both have one, the texts are joined in the note of `into`, equal ones once.
 */
export function joinNotes(change: NewChange, into: TopicRecord, from: TopicRecord): void {
  const { records } = change
  const own = records.get('note', change.topic(into.id).note)
  const other = records.get('note', from.note)
  if (!other || other.text.trim() === '') return
  if (!own) change.update('topic', into.id, { note: other.id })
  else if (own.text.trim() !== other.text.trim())
    change.update('note', own.id, { text: joinTexts(own.text, other.text) })
}
