import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import type { NumberingScheme } from '../records/layout'
import { isRoot } from '../records/place'
import type { Records } from '../records/records'
import { typedNumber } from '../tree/numbering'
import { branch } from '../tree/walk'
import { command, named } from './command'

/** The schemes as people read them, each by an example. */
export const SCHEME_NAMES: Record<NumberingScheme, string> = {
  decimal: '1, 1.1, 1.1.1',
  turns: '1, 1a, 1a1',
  sections: '1.1.1, then 1.1.1-1a',
}

/** Numbers a whole map from its order, or no longer. Refused where the map is gone. */
export const numberMap = command((change, args: { map: MapId; scheme: NumberingScheme | null }) => {
  change.update('map', args.map, { numbering: args.scheme })
  const label = args.scheme ? `Number the map ${SCHEME_NAMES[args.scheme]}` : 'Stop numbering the map'
  return { label, select: [] }
})

/**
 * Numbers what hangs below topics, by a scheme that begins there; null follows what is around. On a root: the map.
 * Refused where a topic is gone.
 */
export const numberBranch = command((change, args: { topics: readonly TopicId[]; scheme: NumberingScheme | null }) => {
  const topics = args.topics.map((id) => change.topic(id))
  for (const topic of topics) {
    if (isRoot(topic)) change.update('map', topic.place.map, { numbering: args.scheme })
    else change.update('topic', topic.id, { numbering: args.scheme })
  }
  const first = named(topics[0]?.text ?? '')
  const label = args.scheme ? `Number what is below ${first}` : `Stop numbering below ${first}`
  return { label, select: [...args.topics] }
})

/** Lets a topic keep a number whatever its place; null lets it be counted again. Refused where the topic is gone. */
export const fixNumber = command((change, args: { topic: TopicId; number: string | null }) => {
  const topic = change.topic(args.topic)
  change.update('topic', topic.id, { number: args.number })
  return {
    label: args.number ? `Fix the number ${args.number}` : `Count ${named(topic.text)} again`,
    select: [topic.id],
  }
})

/**
 * Takes numbers that were typed at the beginning of texts in a branch out of them: either to be kept as they are, or
 * to be counted from now on. Refused where no text begins with a number. O(topics of the branch).
 */
export const takeTypedNumbers = command((change, args: { topic: TopicId; keep: boolean }) => {
  const head = change.topic(args.topic)
  let taken = 0
  for (const topic of [...branch(change.records, head)]) {
    const typed = topic.id === head.id ? null : typedNumber(topic.text)
    if (!typed) continue
    change.update('topic', topic.id, { text: typed.text, number: args.keep ? typed.number : null })
    taken++
  }
  if (taken === 0) refuse('invalid', 'No text below this topic begins with a number.')
  if (!args.keep) numberBranch.within(change, { topics: [head.id], scheme: 'decimal' })
  const what = taken === 1 ? 'a number' : `${taken} numbers`
  return { label: `${args.keep ? 'Fix' : 'Count'} ${what} that stood in the text`, select: [head.id] }
})

/** The number of typed numbers below a topic, to offer taking them over. */
export function countTypedNumbers(records: Records, topic: TopicId): number {
  const head = records.get('topic', topic)
  if (!head) return 0
  let count = 0
  for (const below of branch(records, head)) if (below.id !== head.id && typedNumber(below.text)) count++
  return count
}
