import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import type { NumberingScheme } from '../records/layout'
import { isRoot } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { counted } from '../text/counted'
import { type Typed, typedNumbers } from '../tree/numbering'
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

/** Lets topics keep the numbers that they show, whatever their places; null lets one be counted again. Refused where a topic is gone. */
export const fixNumbers = command(
  (change, { numbers }: { numbers: readonly { topic: TopicId; number: string | null }[] }) => {
    for (const { topic, number } of numbers) change.update('topic', change.topic(topic).id, { number })
    const areFixed = numbers.some(({ number }) => number !== null)
    return {
      label: `${areFixed ? 'Fix' : 'Count again'} ${counted(numbers.length, 'number', 'numbers')}`,
      select: numbers.map(({ topic }) => topic),
    }
  },
)

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
  const typed = typedBelow(change.records, head)
  for (const [topic, { number, text }] of typed)
    change.update('topic', topic, { text, number: args.keep ? number : null })
  const taken = typed.length
  if (taken === 0) refuse('invalid', 'No text below this topic begins with a number.')
  if (!args.keep) numberBranch.within(change, { topics: [head.id], scheme: 'decimal' })
  const what = taken === 1 ? 'a number' : `${taken} numbers`
  return { label: `${args.keep ? 'Fix' : 'Count'} ${what} that stood in the text`, select: [head.id] }
})

/** The number of typed numbers below a topic, to offer taking them over. */
export function countTypedNumbers(records: Records, topic: TopicId): number {
  const head = records.get('topic', topic)
  if (!head) return 0
  return typedBelow(records, head).length
}

/** The topics below one before whose texts a number was typed. O(topics of the branch). */
function typedBelow(records: Records, head: TopicRecord): [TopicId, Typed][] {
  return [...branch(records, head)].flatMap((above) => {
    const children = records.children(above.id)
    const typed = typedNumbers(children.map(({ text }) => text))
    return children.flatMap(({ id }, i): [TopicId, Typed][] => (typed[i] ? [[id, typed[i]]] : []))
  })
}
