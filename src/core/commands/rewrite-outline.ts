import { refuse } from '../changes/problem'
import { type OutlineLine, readOutlineText, type TopicLine, textAsRead } from '../formats/outline-text'
import { matchTrees } from '../matching/tree-match'
import { TopicId } from '../records/ids'
import { hangs, parentOf } from '../records/place'
import { MAX_TOPIC_TEXT, storable } from '../records/text'
import { branch, isInTrash } from '../tree/walk'
import { blankTopic } from './blank-topic'
import { command, type Done, type NewChange, named } from './command'
import { hang, placesFor } from './hang'
import { MAX_PLANTED } from './plant'
import { trashBranches } from './trash-branches'

/** `lines` is what the text says now, line by line: the base of the next rewriting. */
interface Rewritten extends Done {
  lines: readonly TopicLine[]
}

/**
 * Makes what hangs below a topic agree with an outline that a person has written as text. Three things count: `base`, the
 * lines with which they began; the text as it is now; and the records, which others may have changed meanwhile. What the
 * person did is the difference between the first two; it is done to the third. So lines that are still there stay the same
 * topics, with their notes, links and files, also where they moved or were retyped; what others added, moved or reworded
 * meanwhile stays; lines that are gone go into the trash, unless others hung something below them. Makes as few edits as
 * that takes; none where the text says what the base says.
 *
 * Refused where the head is gone, and for more or longer topics than can be. Costs as `matchTrees`.
 */
export const rewriteOutline = command(
  (change, args: { head: TopicId; base: readonly TopicLine[]; text: string }): Rewritten => {
    const head = change.topic(args.head)
    const after = readOutlineText(storable(args.text))
    if (after.length > MAX_PLANTED)
      refuse('invalid', `This text would become ${after.length} topics; at most ${MAX_PLANTED} hang below one.`)
    if (after.some(({ text }) => text.length > MAX_TOPIC_TEXT))
      refuse('invalid', `A line has at most ${MAX_TOPIC_TEXT} letters.`)
    const base = args.base.map(({ topic, level, text }) => ({ topic, level, text: textAsRead(text) }))
    const rewriting = new Rewriting(change, head.id, base, after)
    rewriting.retype()
    rewriting.settle()
    rewriting.trashGone()
    return { label: `Write the outline of ${named(head.text)}`, select: [], lines: rewriting.lines }
  },
)

/**
 * Does to what hangs below a topic what was done to an outline: the difference between `base` and `after`, as `rewriteOutline` does with
 * text. What a topic says is left alone where `keeps` says that it was changed meanwhile, and
 * what is gone stays where `holds` says so. Returns the lines with their topics.
 */
export function followLines(
  change: NewChange,
  head: TopicId,
  base: readonly TopicLine[],
  after: readonly OutlineLine[],
  keeps: (topic: TopicId, was: string) => boolean,
  holds: (topic: TopicId, was: string) => boolean,
): readonly TopicLine[] {
  const rewriting = new Rewriting(change, head, base, after)
  rewriting.retype(keeps)
  rewriting.settle()
  rewriting.trashGone(holds)
  return rewriting.lines
}

interface Written extends OutlineLine {
  /** What the line said when the person began; null for a new one. */
  was: string | null
  id: TopicId
}

class Rewriting {
  private readonly written: readonly Written[]
  /** Whether every line is where it was, whatever it says: then nothing moved, came or went. */
  private readonly isSameShape: boolean

  constructor(
    private readonly change: NewChange,
    private readonly head: TopicId,
    private readonly base: readonly TopicLine[],
    after: readonly OutlineLine[],
  ) {
    const match = matchTrees(base, after)
    this.isSameShape =
      after.length === base.length && after.every(({ level }, i) => match[i] === i && base[i]!.level === level)
    this.written = after.map(({ level, text }, i): Written => {
      const known = base[match[i]!]
      return { level, text, was: known?.text ?? null, id: known?.topic ?? change.newId(TopicId) }
    })
  }

  get lines(): readonly TopicLine[] {
    return this.written.map(({ id, level, text }) => ({ topic: id, level, text }))
  }

  /** Topics whose lines say something else than the person began with. */
  retype(keeps: (topic: TopicId, was: string) => boolean = () => false): void {
    for (const { id, text, was } of this.written)
      if (was !== null && was !== text && this.change.records.get('topic', id) && !keeps(id, was))
        this.change.update('topic', id, { text })
  }

  /** Hangs what is new or was moved by the person, parents before their children; all else stays as others left it. */
  settle(): void {
    if (this.isSameShape) return
    this.had = childrenIn(this.head, this.base)
    this.wanted = childrenIn(
      this.head,
      this.written.map(({ id, level }) => ({ topic: id, level })),
    )
    this.oldParents = parentsIn(this.had)
    this.wantedParents = parentsIn(this.wanted)
    this.texts = new Map(this.written.map(({ id, text }) => [id, text]))
    this.settleBelow(this.head)
    for (const { id } of this.written) this.settleBelow(id)
  }
  /** The topics below each one, and that above each one, as the person had them and as they want them. */
  private had: ReadonlyMap<TopicId, TopicId[]> = new Map()
  private wanted: ReadonlyMap<TopicId, TopicId[]> = new Map()
  private oldParents: ReadonlyMap<TopicId, TopicId> = new Map()
  private wantedParents: ReadonlyMap<TopicId, TopicId> = new Map()
  private texts: ReadonlyMap<TopicId, string> = new Map()

  private settleBelow(parent: TopicId): void {
    const children = this.wanted.get(parent)
    if (!children) return
    const stay = this.unmoved(parent, children)
    if (stay.size === children.length) return
    const onto = this.standing(parent)
    let after: TopicId | null = null
    for (let i = 0; i < children.length; ) {
      if (stay.has(children[i]!)) {
        if (this.parentNow(children[i]!) === onto) after = children[i]!
        i++
        continue
      }
      const begin = i
      while (i < children.length && !stay.has(children[i]!)) i++
      const run = children.slice(begin, i)
      this.place(run, onto, after)
      after = run.at(-1)!
    }
  }

  /** Which children of a topic hung on it already, in the order in which the person wants them. */
  private unmoved(parent: TopicId, children: readonly TopicId[]): Set<TopicId> {
    const positions = new Map(this.had.get(parent)?.map((id, i) => [id, i]))
    const before = children.map((id) => (this.oldParents.get(id) === parent ? positions.get(id)! : null))
    return new Set([...longestRising(before)].map((i) => children[i]!))
  }

  private parentNow(id: TopicId): TopicId | null {
    const topic = this.change.records.get('topic', id)
    return topic ? parentOf(topic) : null
  }

  /** The nearest topic upward in the text that others have not taken away meanwhile. */
  private standing(parent: TopicId): TopicId {
    for (let at = parent; at !== this.head; at = this.wantedParents.get(at) ?? this.head) {
      const topic = this.change.records.get('topic', at)
      if (topic && !isInTrash(this.change.records, topic)) return at
    }
    return this.head
  }
  /** Puts a run of topics behind a sibling, known ones and new ones. */
  private place(run: readonly TopicId[], onto: TopicId, after: TopicId | null): void {
    const { change } = this
    const parent = change.topic(onto)
    const known = run.filter((id) => change.records.get('topic', id))
    if (known.length === run.length) {
      hang(
        change,
        run.map((id) => change.topic(id)),
        { parent, after },
      )
      return
    }
    const places = placesFor(
      change.records,
      { parent, after },
      run.map(() => 1),
    )
    run.forEach((id, i) => {
      const place = places[i]!
      const topic = change.records.get('topic', id)
      if (!topic) change.create('topic', blankTopic(id, place, this.texts.get(id)!))
      else {
        const side = hangs(topic.place) && topic.place.parent === onto ? topic.place.side : null
        change.update('topic', id, { place: { ...place, side: side ?? place.side } })
      }
    })
  }

  /** What the text no longer says, but for what others have hung something on meanwhile, and what `holds` says. */
  trashGone(holds: (topic: TopicId, was: string) => boolean = () => false): void {
    if (this.isSameShape) return
    const { records } = this.change
    const kept = new Set<TopicId>(this.written.map(({ id }) => id))
    const gone = new Set(this.base.flatMap(({ topic, text }) => (kept.has(topic) || holds(topic, text) ? [] : topic)))
    if (gone.size === 0) return
    for (const topic of [...branch(records, this.change.topic(this.head))].reverse()) {
      // From the last to the first, so that a topic is looked at before the one on which it hangs.
      const parent = parentOf(topic)
      if (parent && !gone.has(topic.id)) gone.delete(parent)
    }
    const heads = [...gone]
      .flatMap((id) => records.get('topic', id) ?? [])
      .filter((topic) => {
        const parent = parentOf(topic)
        return !parent || !gone.has(parent)
      })
    if (heads.length > 0) trashBranches(this.change, heads)
  }
}

const parentsIn = (children: ReadonlyMap<TopicId, TopicId[]>): Map<TopicId, TopicId> =>
  new Map([...children].flatMap(([parent, below]) => below.map((child) => [child, parent])))

function childrenIn(head: TopicId, lines: readonly { topic: TopicId; level: number }[]): Map<TopicId, TopicId[]> {
  const children = new Map<TopicId, TopicId[]>()
  const open: TopicId[] = []
  for (const { topic, level } of lines) {
    open.length = level
    const parent = open[level - 1] ?? head
    open[level] = topic
    const siblings = children.get(parent)
    if (siblings) siblings.push(topic)
    else children.set(parent, [topic])
  }
  return children
}

/**
 * Indices of the longest rising run of numbers, nulls left out, by patience sorting. Source: Fredman, "On Computing the
 * Length of Longest Increasing Subsequences", 1975. O(n log n).
 */
function longestRising(numbers: readonly (number | null)[]): Set<number> {
  const tails: number[] = []
  const previous = new Int32Array(numbers.length).fill(-1)
  numbers.forEach((number, i) => {
    if (number === null) return
    let low = 0
    let high = tails.length
    while (low < high) {
      const middle = (low + high) >> 1
      if (numbers[tails[middle]!]! < number) low = middle + 1
      else high = middle
    }
    if (low > 0) previous[i] = tails[low - 1]!
    tails[low] = i
  })
  const stay = new Set<number>()
  for (let at = tails.at(-1) ?? -1; at >= 0; at = previous[at]!) stay.add(at)
  return stay
}
