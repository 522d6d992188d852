import { generateNKeysBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { MAX_TOPIC_TEXT } from '../records/text'
import { isRoot, type TopicRecord } from '../records/topic'
import { blankTopic } from './add-topic'
import { Draft, type Making, named, type Outcome } from './command'
import { joinNotes } from './join-notes'
import { moveBelongings } from './move-belongings'
import { headsOnly } from './move-topics'

const found = (records: Records, id: TopicId) => records.get('topic', id) ?? refuse('gone', 'This topic is gone.')

/** Hangs topics below another one, behind its last child, in order. */
function hangBelow(draft: Draft, topics: readonly TopicRecord[], parent: TopicRecord): void {
  const last = draft.records.childrenWithTrashed(parent.id).at(-1)?.place.rank ?? null
  const ranks = generateNKeysBetween(last, null, topics.length)
  topics.forEach((topic, i) => {
    const place = { map: parent.place.map, parent: parent.id, rank: ranks[i]!, side: null, x: null, y: null }
    draft.update('topic', topic.id, { place })
  })
}

/** Makes a topic the heading of its siblings: they hang below it from now on. */
export function promoteToHeading(records: Records, args: { topic: TopicId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = found(records, args.topic)
  const parent = topic.place.parent ?? refuse('root', 'This topic hangs on nothing, so it has no siblings.')
  const siblings = records
    .children(parent)
    .filter((sibling) => sibling.id !== topic.id && sibling.place.side === topic.place.side)
  if (siblings.length === 0) refuse('invalid', 'This topic has no siblings beside it.')
  hangBelow(draft, siblings, topic)
  if (topic.folded) draft.update('topic', topic.id, { folded: false })
  return draft.outcome(`Make ${named(topic.text)} the heading of its siblings`, [topic.id])
}

/** The reverse: what hangs below a topic comes to stand behind it, beside it. */
export function demoteHeading(records: Records, args: { topic: TopicId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = found(records, args.topic)
  const parent = topic.place.parent ?? refuse('root', 'Nothing can stand beside this topic.')
  const children = records.children(topic.id)
  if (children.length === 0) refuse('invalid', 'There is nothing below this topic.')
  const siblings = records.childrenWithTrashed(parent)
  const next = siblings[siblings.findIndex(({ id }) => id === topic.id) + 1]
  const ranks = generateNKeysBetween(topic.place.rank, next?.place.rank ?? null, children.length)
  children.forEach((child, i) => {
    const place = { ...topic.place, rank: ranks[i]!, x: null, y: null }
    draft.update('topic', child.id, { place })
  })
  return draft.outcome(`Put what is below ${named(topic.text)} beside it`, [topic.id])
}

/**
 * Joins topics into the first of them: texts line by line, notes one after the other, files, links and what hangs below
 * united. The others go into the trash.
 */
export function joinTopics(records: Records, args: { topics: TopicId[] }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const [first, ...others] = headsOnly(records, args.topics)
  if (!first || others.length === 0) refuse('invalid', 'Select two topics or more to join them.')
  if (others.some(isRoot)) refuse('root', 'The root of a map cannot be joined into another topic.')
  if (others.some((topic) => topic.opensMap)) refuse('doorway', 'A doorway cannot be joined: bring its map back first.')
  const text = [first, ...others]
    .map((topic) => topic.text)
    .filter((line) => line.trim() !== '')
    .join('\n')
  if (text.length > MAX_TOPIC_TEXT) refuse('invalid', 'Their texts are too long to be one topic.')
  draft.update('topic', first.id, { text })
  let note = first.note
  for (const other of others) {
    const carried = joinNotes(draft, { ...first, note }, other)
    if (carried) draft.update('topic', first.id, { note: (note = carried) })
    moveBelongings(draft, other, first)
    draft.update('topic', other.id, { trashed: true })
  }
  hangBelow(
    draft,
    others.flatMap((topic) => records.children(topic.id)),
    first,
  )
  return draft.outcome(`Join ${others.length + 1} topics`, [first.id])
}

/** Makes a topic of each line of a text: the first line stays, the others follow it as siblings, or below a root. */
export function splitLines(records: Records, args: { topic: TopicId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = found(records, args.topic)
  const lines = topic.text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
  const [first = '', ...rest] = lines
  if (rest.length === 0) refuse('invalid', 'This topic has one line only.')
  draft.update('topic', topic.id, { text: first })
  const parent = topic.place.parent ?? topic.id
  const siblings = records.childrenWithTrashed(parent)
  const at = siblings.findIndex(({ id }) => id === topic.id)
  const [before, after] =
    topic.place.parent === null
      ? [siblings.at(-1)?.place.rank ?? null, null]
      : [topic.place.rank, siblings[at + 1]?.place.rank ?? null]
  const ranks = generateNKeysBetween(before, after, rest.length)
  const made = rest.map((line, i) => {
    const side = topic.place.parent === null ? (isRoot(topic) ? ('right' as const) : null) : topic.place.side
    const place = { map: topic.place.map, parent, rank: ranks[i]!, side, x: null, y: null }
    return draft.create('topic', blankTopic(draft.newId(TopicId), place, line)).id
  })
  return draft.outcome(`Split ${named(first)} into ${lines.length} topics`, [topic.id, ...made])
}
