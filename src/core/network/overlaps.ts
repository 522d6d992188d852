import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { ancestors, branch } from '../tree/walk'

/** Two branches, or whole maps, that say much the same. */
export interface Overlap {
  a: TopicId
  b: TopicId
  /** Topics of the smaller one that have a close one in the other, of how many. */
  said: number
  of: number
}

/** So many topics, and such a part of the smaller branch, say the same where it is told. */
const LEAST_SAID = 3
const LEAST_PART = 0.4
/** Overlaps that are told. */
const MOST = 200
/** So many of the closest pairs, levels above a topic, and overlaps that they come to, are looked at. */
const MOST_PAIRS = 10_000
const LEVELS = 6
const MOST_FOUND = 2_000

interface Votes {
  a: TopicRecord
  b: TopicRecord
  ofA: Set<string>
  ofB: Set<string>
}

/**
 * Branches that say much the same as others, given the pairs of topics that are close, the closest first: each pair speaks for all branches around
 * it. Those with most in common first; of branches inside one another only the best is told. O(pairs times levels squared).
 */
export function overlapsOf(records: Records, close: readonly { a: string; b: string }[]): Overlap[] {
  const votes = new Map<string, Votes>()
  for (const pair of close.slice(0, MOST_PAIRS)) {
    const [first, second] = [records.get('topic', pair.a), records.get('topic', pair.b)]
    if (!first || !second) continue
    const [x, y] = [branchesAround(records, first), branchesAround(records, second)]
    const isShared = new Set([...x, ...y].filter((topic) => x.includes(topic) && y.includes(topic)))
    for (const a of x)
      for (const b of y) {
        if (isShared.has(a) || isShared.has(b)) continue
        const [one, other] = a.id < b.id ? [a, b] : [b, a]
        const key = `${one.id} ${other.id}`
        let vote = votes.get(key)
        if (!vote) votes.set(key, (vote = { a: one, b: other, ofA: new Set(), ofB: new Set() }))
        vote.ofA.add(one === a ? first.id : second.id)
        vote.ofB.add(one === a ? second.id : first.id)
      }
  }
  const sizes = new Map<string, number>()
  const sizeOf = (topic: TopicRecord): number => {
    let size = sizes.get(topic.id)
    if (size === undefined) sizes.set(topic.id, (size = [...branch(records, topic)].length))
    return size
  }
  const found = [...votes.values()].flatMap(({ a, b, ofA, ofB }) => {
    const said = Math.min(ofA.size, ofB.size)
    if (said < LEAST_SAID) return []
    const of = Math.min(sizeOf(a), sizeOf(b))
    return said < of * LEAST_PART ? [] : [{ a, b, said, of }]
  })
  found.sort((x, y) => y.said * (y.said / y.of) - x.said * (x.said / x.of))
  const told: typeof found = []
  const areNested = (x: TopicRecord, y: TopicRecord) => isWithin(records, x, y) || isWithin(records, y, x)
  for (const each of found.slice(0, MOST_FOUND)) {
    if (told.length === MOST) break
    if (!told.some(({ a, b }) => areNested(a, each.a) && areNested(b, each.b))) told.push(each)
  }
  return told.map(({ a, b, said, of }) => ({ a: a.id, b: b.id, said, of }))
}

/** A topic, where anything hangs on it, and those above it. */
function branchesAround(records: Records, topic: TopicRecord): TopicRecord[] {
  const above = [...ancestors(records, topic)].slice(0, LEVELS)
  return records.children(topic.id).length > 0 ? [topic, ...above] : above
}

const isWithin = (records: Records, topic: TopicRecord, around: TopicRecord): boolean =>
  topic === around || [...ancestors(records, topic)].some((above) => above === around)
