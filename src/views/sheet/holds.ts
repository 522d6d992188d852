import { dequal } from 'dequal/lite'
import { badgeName } from '../../core/badges/badges'
import { LAYOUT_NAMES } from '../../core/commands/layouts'
import { openThreads } from '../../core/network/comments'
import { incomingAt } from '../../core/network/crosslinks'
import { isPlacedByHand, isRoot } from '../../core/records/place'
import type { Records } from '../../core/records/records'
import type { TopicRecord } from '../../core/records/topic'
import { TASK_NAMES } from '../../core/scene/signs'
import { counted as sayCount } from '../../core/text/counted'
import { countNoteWords } from '../../core/text/word-count'
import { isFree } from '../../core/tree/free'
import { sayDays } from '../app/when'
import type { Section } from '../workspace/workspace-store'

/** What all topics have alike; undefined where they differ. */
export function common<Value>(topics: readonly TopicRecord[], of: (topic: TopicRecord) => Value): Value | undefined {
  const [first, ...others] = topics.map(of)
  return others.every((value) => dequal(value, first)) ? first : undefined
}

const DIFFERENT = 'different'

/** What a section of the topic sheet holds, in a few words; empty where it holds nothing. */
export function holds(records: Records, section: Section, topics: readonly TopicRecord[]): string {
  const counted = COUNTED[section]
  if (counted && topics.length > 1) {
    const carrying = topics.filter((topic) => counted(records, topic) > 0).length
    return carrying === 0 ? '' : `${carrying} of ${topics.length}`
  }
  return common(topics, (topic) => ofOne(records, section, topic)) ?? DIFFERENT
}

/** How much of what cannot be shown for several topics at once. */
const COUNTED: Partial<Record<Section, (records: Records, topic: TopicRecord) => number>> = {
  note: (records, { note }) => countNoteWords(records.get('note', note)?.text ?? ''),
  links: (records, topic) =>
    records.crosslinksFrom(topic.id).length + incomingAt(records, topic).length + records.weblinks(topic.id).length,
  files: (records, { id }) => records.attachments(id).length,
  comments: (records, { id }) => openThreads(records, id).length,
}

function ofOne(records: Records, section: Section, topic: TopicRecord): string {
  const count = COUNTED[section]?.(records, topic) ?? 0
  switch (section) {
    case 'note':
      return count === 0 ? '' : sayCount(count, 'word', 'words')
    case 'links':
      return count === 0 ? '' : String(count)
    case 'files':
      return filesOf(records, topic)
    case 'comments':
      return count === 0 ? '' : sayCount(count, 'open', 'open')
    case 'marks':
      return marksOf(records, topic)
    case 'dates': {
      const parts = [topic.dates ? sayDays(topic.dates) : [], topic.task ? TASK_NAMES[topic.task] : []]
      return parts.flat().join(', ')
    }
    case 'layout':
      return layoutOf(records, topic)
    case 'look':
      return topic.look || topic.branchLook ? 'its own' : ''
    default:
      return section satisfies never
  }
}

function filesOf(records: Records, { id }: TopicRecord): string {
  const [first, ...others] = records.attachments(id)
  if (!first) return ''
  return others.length === 0 ? (records.get('file', first.file)?.name ?? '1') : String(others.length + 1)
}

function marksOf(records: Records, { badges, tags, picture }: TopicRecord): string {
  const names = tags.flatMap((id) => {
    const tag = records.get('tag', id)
    return tag && !tag.trashed ? tag.name : []
  })
  return [...badges.map(badgeName), ...names, ...(picture ? ['a picture'] : [])].join(', ')
}

function layoutOf(records: Records, topic: TopicRecord): string {
  const map = isRoot(topic) ? records.get('map', topic.place.map) : null
  const layout = map?.layout ?? topic.layout
  const parts = [
    layout ? LAYOUT_NAMES[layout] : [],
    (map?.numbering ?? topic.numbering) ? 'numbered' : [],
    topic.free ? 'every place is kept' : [],
    isPlacedByHand(topic) && !isFree(records, topic) ? 'placed by hand' : [],
  ]
  return parts.flat().join(', ')
}
