import { refuse } from '../changes/problem'
import { NoteId, type TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { Draft, type Making, named, type Outcome } from './command'

/**
 * Gives a topic's note another text; makes the note where there is none. `base` is the text that the person began
 * with: what others wrote meanwhile is joined by lines when the change is committed.
 */
export function writeNote(
  records: Records,
  args: { topic: TopicId; base: string; text: string },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const note = records.get('note', topic.note)
  if (note) {
    const outcome = draft.outcome(`Write the note of ${named(topic.text)}`, [topic.id])
    outcome.change.edits.push({ kind: 'note', id: note.id, before: { text: args.base }, after: { text: args.text } })
    return outcome
  }
  const created = draft.create('note', { id: draft.newId(NoteId), text: args.text, trashed: false })
  draft.update('topic', topic.id, { note: created.id })
  return draft.outcome(`Write the note of ${named(topic.text)}`, [topic.id])
}
