import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'

/** What a topic can be asked to have. */
export const TRAITS = ['note', 'file', 'link', 'date', 'doorway'] as const
export type Trait = (typeof TRAITS)[number]

/** Which topics stand out. All of it must hold. */
export interface Filter {
  /** Each of these words stands somewhere in the topic's text or note, case and accents aside. Empty holds for all. */
  words: string
  traits: readonly Trait[]
}

const plain = (text: string): string => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase()

export const isEmpty = ({ words, traits }: Filter): boolean => words.trim() === '' && traits.length === 0

/** Whether a topic matches a filter. Linear in its text and note. */
export function matches(records: Records, topic: TopicRecord, { words, traits }: Filter): boolean {
  const note = records.get('note', topic.note)?.text ?? ''
  for (const trait of traits) if (!has(records, topic, note, trait)) return false
  const wanted = plain(words)
    .split(/\s+/)
    .filter((word) => word !== '')
  if (wanted.length === 0) return true
  const text = plain(`${topic.text}\n${note}`)
  return wanted.every((word) => text.includes(word))
}

function has(records: Records, topic: TopicRecord, note: string, trait: Trait): boolean {
  switch (trait) {
    case 'note':
      return note.trim() !== ''
    case 'file':
      return records.attachments(topic.id).length > 0
    case 'link':
      return (
        records.crosslinksFrom(topic.id).length +
          records.crosslinksTo(topic.id).length +
          records.weblinks(topic.id).length >
        0
      )
    case 'date':
      return topic.dates !== null
    case 'doorway':
      return topic.opensMap !== null
    default:
      return trait satisfies never
  }
}
