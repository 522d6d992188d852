import { incomingAt } from '../network/crosslinks'
import type { TaskState } from '../records/dates'
import type { TagId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { foldForFinding } from '../text/folding'
import { ancestors } from './walk'

/** What a topic can be asked to have. */
export const TRAITS = ['note', 'file', 'link', 'date', 'doorway', 'picture'] as const
export type Trait = (typeof TRAITS)[number]

/** Which topics stand out. All of it must hold. */
export interface Filter {
  /** Each of these words stands somewhere in the topic's text or note, case and accents aside. Empty holds for all. */
  words: string
  traits: readonly Trait[]
  /** Each of these tags is on it. */
  tags: readonly TagId[]
  /** Each of these badges is on it. */
  badges: readonly string[]
  /** It is a task in one of these states; empty holds for all topics. */
  tasks: readonly TaskState[]
  /** Its dates touch the days from one to the other, both in ISO 8601; null leaves that end open. */
  from: string | null
  until: string | null
  /** Whether what does not match leaves the view instead of fading. */
  alone: boolean
}

/** Holds for every topic. */
export const NO_FILTER: Filter = {
  words: '',
  traits: [],
  tags: [],
  badges: [],
  tasks: [],
  from: null,
  until: null,
  alone: false,
}

export const isEmpty = ({ words, traits, tags, badges, tasks, from, until }: Filter): boolean =>
  words.trim() === '' && traits.length + tags.length + badges.length + tasks.length === 0 && !from && !until

/** Whether a topic matches a filter. Linear in its text and note. */
export function matches(records: Records, topic: TopicRecord, filter: Filter): boolean {
  const { words, traits, tags, badges, tasks } = filter
  if (!tags.every((tag) => topic.tags.includes(tag))) return false
  if (!badges.every((badge) => topic.badges.includes(badge))) return false
  if (tasks.length > 0 && (topic.task === null || !tasks.includes(topic.task))) return false
  if (!isDated(topic, filter)) return false
  const note = records.get('note', topic.note)?.text ?? ''
  for (const trait of traits) if (!has(records, topic, note, trait)) return false
  const wanted = foldForFinding(words)
    .split(/\s+/)
    .filter((word) => word !== '')
  if (wanted.length === 0) return true
  const text = foldForFinding(`${topic.text}\n${note}`)
  return wanted.every((word) => text.includes(word))
}

function isDated({ dates }: TopicRecord, { from, until }: Filter): boolean {
  if (!from && !until) return true
  if (!dates) return false
  return (!from || (dates.end ?? dates.start) >= from) && (!until || dates.start <= until)
}

/** The topics that match, with all above them: what a view needs that shows only them. */
export function keptBy(records: Records, topics: Iterable<TopicRecord>, filter: Filter): Set<string> {
  const kept = new Set<string>()
  for (const topic of topics) {
    if (!matches(records, topic, filter)) continue
    kept.add(topic.id)
    for (const above of ancestors(records, topic)) {
      if (kept.has(above.id)) break
      kept.add(above.id)
    }
  }
  return kept
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
          incomingAt(records, topic).length +
          records.weblinks(topic.id).length >
        0
      )
    case 'date':
      return topic.dates !== null
    case 'picture':
      return topic.picture !== null
    case 'doorway':
      return topic.opensMap !== null
    default:
      return trait satisfies never
  }
}
