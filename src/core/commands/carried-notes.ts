import { refuse } from '../changes/problem'
import { NoteId, type TopicId } from '../records/ids'
import { command, named } from './command'

/**
 * Has another topic carry the note of a topic too: there is one text, wherever it is written. Refused where one of them is gone, where
 * there is no note, and where the other has words of its own.
 */
export const carryNote = command((change, args: { of: TopicId; also: TopicId }) => {
  const of = change.topic(args.of)
  const also = change.topic(args.also)
  const note = change.records.get('note', of.note)
  if (!note || note.text.trim() === '') refuse('invalid', `${named(of.text)} has no note.`)
  if (also.note === of.note) refuse('invalid', `${named(also.text)} carries this note already.`)
  const own = change.records.get('note', also.note)
  if (own && own.text.trim() !== '') refuse('exists', `${named(also.text)} has a note of its own.`)
  change.update('topic', also.id, { note: note.id })
  return { label: `Carry the note of ${named(of.text)} on ${named(also.text)}`, select: [also.id] }
})

/** Gives a topic a copy of the note that it carries with others, which is its own from then on. Refused where it carries none with others. */
export const letGoOfNote = command((change, args: { topic: TopicId }) => {
  const topic = change.topic(args.topic)
  const note = change.records.get('note', topic.note)
  if (!note) refuse('invalid', `${named(topic.text)} has no note.`)
  const id = change.newId(NoteId)
  change.create('note', { id, text: note.text, joinedInto: null, trashed: false })
  change.update('topic', topic.id, { note: id })
  return { label: `Make the note of ${named(topic.text)} its own`, select: [topic.id] }
})
