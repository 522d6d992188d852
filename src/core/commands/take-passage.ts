import { refuse } from '../changes/problem'
import { writeOwnAddress } from '../formats/own-address'
import type { Source } from '../network/sources'
import { NoteId, type TopicId } from '../records/ids'
import { MAX_NOTE_TEXT } from '../records/text'
import { joinTexts } from '../text/join-texts'
import { paragraphsOf, quotation } from '../text/quotation'
import { shortName } from '../text/short-name'
import { addTopic } from './add-topic'
import { command, type NewChange, named } from './command'
import { foundSource } from './sources'

/** What is taken from a source: its words, where they come from, and whether they become a topic, or go into the note of one. */
interface Passage {
  source: Source
  /** Counted from 1; null where the source has no pages. */
  page: number | null
  text: string
  /** Below which topic it comes, or in whose note. */
  at: TopicId
  becomes: 'topic' | 'note'
}

/** Longest passage, in letters. */
export const MOST_PASSAGE = 20_000

/**
 * Takes a passage over with its source and page: as a topic with a short name below another, the words in full in its note where they are
 * longer than that; or at the end of a note, as a quotation. Refused where the source or the topic is gone, and without words.
 */
export const takePassage = command((change, { source, page, text, at, becomes }: Passage) => {
  const told = foundSource(change, source)
  const topic = change.topic(at)
  if (text.length > MOST_PASSAGE) refuse('invalid', 'This is too long for a passage. Select less of it.')
  const paragraphs = paragraphsOf(text)
  if (paragraphs.length === 0) refuse('invalid', 'Select the words first that are to be taken over.')
  const words = paragraphs.join(' ')
  const origin =
    told.kind === 'weblink'
      ? { address: told.url, name: told.name }
      : {
          address: writeOwnAddress({ kind: 'file', id: told.file, page }),
          name: page === null ? told.name : `${told.name}, page ${page}`,
        }
  const label = `Take a passage of ${named(told.name)}`
  if (becomes === 'note') {
    addToNote(change, topic.id, quotation(paragraphs, origin))
    return { label, select: [topic.id] }
  }
  const short = shortName(words)
  const made = addTopic.within(change, { parent: topic.id, after: 'last', text: short ?? words })
  addToNote(change, made.select[0]!, quotation(short === null ? [] : paragraphs, origin))
  return { label, select: made.select }
})

/** Adds a text at the end of a topic's note; makes the note where there is none. Refused where there is no room for it. */
function addToNote(change: NewChange, id: TopicId, text: string): void {
  const topic = change.topic(id)
  const note = change.records.get('note', topic.note)
  const joined = joinTexts(note?.text ?? '', text)
  if (joined.length > MAX_NOTE_TEXT) refuse('invalid', 'The note of this topic is full. Take the passage as a topic.')
  if (note) change.update('note', note.id, { text: joined })
  else {
    const made = change.newId(NoteId)
    change.create('note', { id: made, text: joined, joinedInto: null, trashed: false })
    change.update('topic', id, { note: made })
  }
}
