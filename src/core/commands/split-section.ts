import type { TopicId } from '../records/ids'
import { isRoot, parentOf } from '../records/place'
import { addTopic } from './add-topic'
import { command, named } from './command'
import { writeNote } from './write-note'

interface Splitting {
  topic: TopicId
  /** The note as the person began with it; see `writeNote`. */
  base: string
  /** What stays of it, CommonMark. */
  before: string
  /** The text of the new topic; empty where it is still to be written. */
  text: string
  /** The note of the new topic, CommonMark; empty for none. */
  after: string
}

/**
 * Makes a topic of a part of a note, as one does who writes a heading into a text: what follows it becomes its note. It comes
 * next in reading order: first below a root or a topic on which others hang, else as the next sibling. Refused where the topic is
 * gone. O(siblings, and the letters of the note).
 */
export const splitSection = command((change, { topic: id, base, before, text, after }: Splitting) => {
  const topic = change.topic(id)
  if (before !== base) writeNote.within(change, { topic: id, base, text: before })
  const parent = parentOf(topic)
  const comesBelow = isRoot(topic) || parent === null || change.records.children(id).length > 0
  const { select } = addTopic.within(change, {
    parent: comesBelow ? id : parent,
    after: comesBelow ? null : id,
    text,
  })
  if (after.trim() !== '') writeNote.within(change, { topic: select[0]!, base: '', text: after })
  return { label: text === '' ? 'Begin a topic' : `Make ${named(text)} a topic`, select }
})
