import { generateNKeysBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { linesBelow, type OutlineLine, readOutlineText } from '../formats/outline-text'
import { matchLines } from '../matching/line-difference'
import { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { MAX_TOPIC_TEXT } from '../records/text'
import type { TopicRecord } from '../records/topic'
import { blankTopic } from './add-topic'
import { Draft, type Making, named, type Outcome } from './command'
import { releaseHomeDoorways } from './home-doorways'
import { hasSides } from './layouts'
import { MAX_PLANTED } from './paste-outline'

interface Wanted extends OutlineLine {
  /** Index of the line that it hangs on; -1 hangs on the head. */
  parent: number
  /** The topic that it is; null makes a new one. */
  topic: TopicRecord | null
  id: TopicId
}

/**
 * Makes what hangs below a topic agree with an indented list that a person has written: lines that are still there stay
 * the same topics, with their notes, links and files, also where they moved or were retyped. Lines that are gone go into
 * the trash. Makes as few edits as that takes; none where the text says what is there already.
 */
export function rewriteOutline(records: Records, args: { head: TopicId; text: string }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const head = records.get('topic', args.head) ?? refuse('gone', 'This topic is gone.')
  const after = readOutlineText(args.text.replaceAll('\u0000', '\ufffd').toWellFormed())
  if (after.length > MAX_PLANTED)
    refuse('invalid', `This text would become ${after.length} topics; at most ${MAX_PLANTED} hang below one.`)
  if (after.some(({ text }) => text.length > MAX_TOPIC_TEXT))
    refuse('invalid', `A line has at most ${MAX_TOPIC_TEXT} letters.`)
  const before = linesBelow(records, head.id)
  const match = matchLines(before, after)
  const wanted = wantedTopics(draft, before, after, match)
  const kept = new Set(wanted.map(({ id }) => id))
  trashGone(
    draft,
    before.map(({ topic }) => topic),
    kept,
  )
  for (const line of wanted)
    if (line.topic && line.topic.text !== line.text) draft.update('topic', line.id, { text: line.text })
  for (const [parent, children] of byParent(head.id, wanted)) setChildren(draft, head, parent, children)
  return draft.outcome(`Write the outline of ${named(head.text)}`, [])
}

function wantedTopics(
  draft: Draft,
  before: readonly { topic: TopicId }[],
  after: readonly OutlineLine[],
  match: Int32Array,
): Wanted[] {
  const open: number[] = []
  return after.map((line, i) => {
    open.length = line.level
    const parent = open.at(-1) ?? -1
    open.push(i)
    const old = before[match[i]!]
    const topic = old ? draft.records.need('topic', old.topic) : null
    return { ...line, parent, topic, id: topic?.id ?? draft.newId(TopicId) }
  })
}

/** The heads of what is gone: what hangs below them goes along, unless it is wanted elsewhere. */
function trashGone(draft: Draft, before: readonly TopicId[], kept: ReadonlySet<TopicId>): void {
  const gone = new Set(before.filter((topic) => !kept.has(topic)))
  const heads = [...gone]
    .map((topic) => draft.records.need('topic', topic))
    .filter((topic) => !topic.place.parent || !gone.has(topic.place.parent))
  for (const topic of heads) draft.update('topic', topic.id, { trashed: true })
  releaseHomeDoorways(draft, heads, kept)
}

function byParent(head: TopicId, wanted: readonly Wanted[]): Map<TopicId, Wanted[]> {
  const children = new Map<TopicId, Wanted[]>()
  for (const line of wanted) {
    const parent = line.parent < 0 ? head : wanted[line.parent]!.id
    const known = children.get(parent)
    if (known) known.push(line)
    else children.set(parent, [line])
  }
  return children
}

/** Puts children in order below a parent; those whose order among one another is right keep their ranks. */
function setChildren(draft: Draft, head: TopicRecord, parent: TopicId, children: readonly Wanted[]): void {
  const { records } = draft
  const known = records.get('topic', parent)
  const sides = known ? hasSides(known) : false
  const here = children.map(({ topic }) => (topic?.place.parent === parent ? topic.place.rank : null))
  if (here.every((rank, i) => rank !== null && (i === 0 || here[i - 1]! < rank))) return
  const stay = longestRising(here)
  let from: string | null = null
  for (let i = 0; i < children.length; ) {
    if (stay.has(i)) {
      from = here[i++]!
      continue
    }
    const begin = i
    while (i < children.length && !stay.has(i)) i++
    const to = i < children.length ? here[i]! : null
    const ranks = generateNKeysBetween(lastUsed(records, parent, from, to), to, i - begin)
    const side = sides ? (children[begin - 1]?.topic?.place.side ?? children[i]?.topic?.place.side ?? 'right') : null
    for (let at = begin; at < i; at++) {
      const { topic, id, text } = children[at]!
      const place = { map: head.place.map, parent, rank: ranks[at - begin]!, side, x: null, y: null }
      if (topic) draft.update('topic', id, { place: { ...place, side: sides ? (topic.place.side ?? side) : null } })
      else draft.create('topic', blankTopic(id, place, text))
    }
    from = ranks.at(-1)!
  }
}

/** The rank after which new ones begin: behind trashed siblings that stand between two that stay. */
function lastUsed(records: Records, parent: string, from: string | null, to: string | null): string | null {
  let last = from
  for (const { place } of records.childrenWithTrashed(parent))
    if ((from === null || place.rank > from) && (to === null || place.rank < to)) last = place.rank
  return last
}

/** Indices of the longest rising run of ranks, nulls left out (patience sorting; Fredman, "On Computing the Length of Longest Increasing Subsequences", 1975). */
function longestRising(ranks: readonly (string | null)[]): Set<number> {
  const tails: number[] = []
  const previous = new Int32Array(ranks.length).fill(-1)
  ranks.forEach((rank, i) => {
    if (rank === null) return
    let low = 0
    let high = tails.length
    while (low < high) {
      const middle = (low + high) >> 1
      if (ranks[tails[middle]!]! < rank) low = middle + 1
      else high = middle
    }
    if (low > 0) previous[i] = tails[low - 1]!
    tails[low] = i
  })
  const stay = new Set<number>()
  for (let at = tails.at(-1) ?? -1; at >= 0; at = previous[at]!) stay.add(at)
  return stay
}
