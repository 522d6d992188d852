import { NoteId, type TopicId } from '../records/ids'
import { command, named } from './command'

/**
 * Gives a topic's note another text; makes the note where there is none. `base` is the text that the person began
 * with: what others wrote meanwhile is joined by lines when the change is committed. Refused where the topic is gone.
 */
export const writeNote = command((change, args: { topic: TopicId; base: string; text: string }) => {
  const topic = change.topic(args.topic)
  const note = change.records.get('note', topic.note)
  if (note) change.update('note', note.id, { text: args.text }, { text: args.base })
  else {
    const id = change.newId(NoteId)
    change.create('note', { id, text: args.text, joinedInto: null, trashed: false })
    change.update('topic', topic.id, { note: id })
  }
  return { label: `Write the note of ${named(topic.text)}`, select: [topic.id] }
})
