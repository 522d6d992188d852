import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import { hangs } from '../records/place'
import type { TopicRecord } from '../records/topic'
import { foldForSorting } from '../text/folding'
import { ranksBehind } from '../tree/rank'
import { command, named } from './command'

export type SortBy = 'text' | 'date' | 'number'

const numberIn = (text: string): number | null => {
  const found = /-?\d+(?:[.,]\d+)?/.exec(text)
  return found ? Number(found[0].replace(',', '.')) : null
}

/** Compares two topics; those without what is sorted by come last, in the order in which they stand. */
function comparison(by: SortBy): (a: TopicRecord, b: TopicRecord) => number {
  const keyOf = (topic: TopicRecord): string | number | null =>
    by === 'text' ? foldForSorting(topic.text) : by === 'date' ? (topic.dates?.start ?? null) : numberIn(topic.text)
  return (a, b) => {
    const [x, y] = [keyOf(a), keyOf(b)]
    if (x === null || y === null) return x === y ? 0 : x === null ? 1 : -1
    return x < y ? -1 : x > y ? 1 : 0
  }
}

/**
 * Sorts what hangs directly below a topic by its text, its date, or the first number in it. Refused where the topic
 * is gone, or its children stand in that order already. O(children × log children).
 */
export const sortChildren = command((change, args: { topic: TopicId; by: SortBy }) => {
  const { records } = change
  const topic = change.topic(args.topic)
  const children = records.children(topic.id)
  const sorted = [...children].sort(comparison(args.by))
  if (sorted.every((child, i) => child === children[i])) refuse('invalid', 'They stand in this order already.')
  // Behind everything that is there, so that no rank meets that of a topic in the trash.
  const ranks = ranksBehind(records, topic.id, 'last', sorted.length)
  sorted.forEach(({ id, place }, i) => {
    if (hangs(place)) change.update('topic', id, { place: { ...place, rank: ranks[i]! } })
  })
  return { label: `Sort ${named(topic.text)} by ${args.by}`, select: [topic.id] }
})
