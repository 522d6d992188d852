import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import type { NumberingScheme } from '../records/layout'
import type { Records } from '../records/records'
import { isRoot } from '../records/topic'
import { typedNumber } from '../tree/numbering'
import { branch } from '../tree/walk'
import { Draft, type Making, named, type Outcome } from './command'

/** The schemes as people read them, each by an example. */
export const SCHEME_NAMES: Record<NumberingScheme, string> = {
  decimal: '1, 1.1, 1.1.1',
  turns: '1, 1a, 1a1',
  sections: '1.1.1, then 1.1.1-1a',
}

/** Numbers a whole map from its order, or no longer. */
export function numberMap(
  records: Records,
  args: { map: MapId; scheme: NumberingScheme | null },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  draft.update('map', args.map, { numbering: args.scheme })
  return draft.outcome(args.scheme ? `Number the map ${SCHEME_NAMES[args.scheme]}` : 'Stop numbering the map')
}

/** Numbers what hangs below topics, by a scheme that begins there; null follows what is around. On a root: the map. */
export function numberBranch(
  records: Records,
  args: { topics: TopicId[]; scheme: NumberingScheme | null },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  for (const id of args.topics) {
    const topic = records.get('topic', id) ?? refuse('gone', 'This topic is gone.')
    if (isRoot(topic)) draft.update('map', topic.place.map, { numbering: args.scheme })
    else draft.update('topic', topic.id, { numbering: args.scheme })
  }
  const first = named(records.need('topic', args.topics[0] ?? null).text)
  return draft.outcome(args.scheme ? `Number what is below ${first}` : `Stop numbering below ${first}`, args.topics)
}

/** Lets a topic keep a number whatever its place; null lets it be counted again. */
export function fixNumber(records: Records, args: { topic: TopicId; number: string | null }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  draft.update('topic', topic.id, { number: args.number })
  return draft.outcome(args.number ? `Fix the number ${args.number}` : `Count ${named(topic.text)} again`, [topic.id])
}

/**
 * Takes numbers that were typed at the beginning of texts in a branch out of them: either to be kept as they are, or to
 * be counted from now on. Refused where no text begins with a number.
 */
export function takeTypedNumbers(records: Records, args: { topic: TopicId; keep: boolean }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const head = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  let taken = 0
  for (const topic of branch(records, head)) {
    const typed = topic.id === head.id ? null : typedNumber(topic.text)
    if (!typed) continue
    draft.update('topic', topic.id, { text: typed.text, number: args.keep ? typed.number : null })
    taken++
  }
  if (taken === 0) refuse('invalid', 'No text below this topic begins with a number.')
  if (!args.keep && isRoot(head)) draft.update('map', head.place.map, { numbering: 'decimal' })
  else if (!args.keep) draft.update('topic', head.id, { numbering: 'decimal' })
  const what = taken === 1 ? 'a number' : `${taken} numbers`
  return draft.outcome(`${args.keep ? 'Fix' : 'Count'} ${what} that stood in the text`, [head.id])
}

/** The number of typed numbers below a topic, to offer taking them over. */
export function countTypedNumbers(records: Records, topic: TopicId): number {
  const head = records.get('topic', topic)
  if (!head) return 0
  let count = 0
  for (const below of branch(records, head)) if (below.id !== head.id && typedNumber(below.text)) count++
  return count
}
