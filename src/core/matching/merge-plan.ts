import type { MapId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { CommonOrigins, settledBetween, takenOutSince } from './common-origin'
import {
  CHOSEN_FIELDS,
  type Choice,
  type Decision,
  type Meant,
  type MergePlan,
  type MergeWay,
  type Part,
  ROOTS,
} from './decisions'
import { Lexicon } from './lexicon'
import { matchMaps } from './match-maps'
import { textTreeOf } from './text-tree'
import { whySame } from './why'

/** What a person has said of topics of the sources: the topic of the target that each is; null where it is none of them. */
type Said = ReadonlyMap<TopicId, TopicId | null>

/** What is known besides the maps: which words mean the same, and what a person has said. */
export interface MergeKnowledge {
  lexicon: Lexicon
  said: Said
  /** What comes from which of two topics that become one, by the topic of the source. */
  choices?: ReadonlyMap<TopicId, Choice>
  /** Sources of which only one branch is taken over. */
  parts?: readonly Part[]
}

/** A pair that is less sure than this is not worth a question to a person. */
const WORTH_ASKING = 0.15

const KNOWS_NOTHING: MergeKnowledge = { lexicon: Lexicon.EMPTY, said: new Map() }

/**
 * Plans the merge of other maps into a map. Side by side, every source becomes a branch at the root. Combined, roots are
 * joined, and so are topics that say the same (see `matchMaps`), wherever they stand; all others are added below the topic
 * that their parent went to. Where a source is a copy of the target, or the reverse, its topics are joined with those that they were
 * copied from, what only one side has changed since is taken from there, and what the target has taken out since is left
 * (`common-origin`). What a person has said goes before what is found. Costs what matching each source with the
 * target does. Throws a RangeError where a map is not held.
 */
export function planMerge(
  records: Records,
  target: MapId,
  sources: readonly MapId[],
  way: MergeWay,
  { lexicon, said, choices = new Map(), parts = [] }: MergeKnowledge = KNOWS_NOTHING,
): MergePlan {
  const into = textTreeOf(records, target)
  const origins = new CommonOrigins(into.topics)
  const targetRoot = rootOf(records, target)
  const decisions: Decision[] = []
  for (const source of sources) {
    const part = parts.find(([map]) => map === source)
    const head = part && headOf(records, part)
    const sourceRoot = head ?? rootOf(records, source)
    const { tree, topics } = textTreeOf(records, source, head)
    const joins = new Map<TopicId, Meant>()
    const likely = new Map<TopicId, Meant>()
    const taken = new Set<TopicId>()
    const join = (topic: TopicId, meant: Meant) => {
      if (taken.has(meant.into)) return
      taken.add(meant.into)
      joins.set(topic, meant)
    }
    const left =
      way === 'combined'
        ? takenOutSince(records, target, origins, topics, tree.parents, (id) => said.has(id))
        : new Set<TopicId>()
    if (way === 'combined') {
      join(sourceRoot.id, { into: targetRoot.id, sure: 1, why: ROOTS })
      for (const { id } of topics) {
        const other = said.get(id)
        if (other && records.get('topic', other)?.place.map === target)
          join(id, { into: other, sure: 1, why: 'as you said' })
      }
      for (const topic of topics) {
        const original = said.has(topic.id) || joins.has(topic.id) ? null : origins.find(topic)
        if (original) join(topic.id, { into: original, sure: 1, why: whyOfOrigin(records, original, topic) })
      }
      for (const match of matchMaps(into.tree, tree, lexicon)) {
        const [topic, other] = [topics[match.b]!.id, into.topics[match.a]!.id]
        if (said.has(topic) || joins.has(topic) || left.has(topic)) continue
        const meant = { into: other, sure: match.sure, why: whySame(match, into.tree, tree, lexicon) }
        if (match.class === 'same') join(topic, meant)
        else if (match.sure >= WORTH_ASKING) likely.set(topic, meant)
      }
    }
    topics.forEach((topic, node) => {
      const meant = joins.get(topic.id)
      const parent = node === 0 || tree.parents[node]! < 0 ? null : topics[tree.parents[node]!]!.id
      const below = parent === null || isLoose(topic) ? targetRoot.id : (joins.get(parent)?.into ?? { copyOf: parent })
      const choice = choices.get(topic.id) ?? (meant && settledChoice(records, meant.into, topic))
      if (left.has(topic.id)) decisions.push({ act: 'leave', source: topic.id, why: TAKEN_OUT })
      else if (meant) decisions.push({ act: 'join', source: topic.id, ...meant, ...(choice ? { choice } : {}) })
      else {
        const other = likely.get(topic.id)
        const isOpen = other && !taken.has(other.into)
        decisions.push({ act: 'add', source: topic.id, below, ...(isOpen ? { likely: other } : {}) })
      }
    })
  }
  return { target, sources: [...sources], ...(parts.length > 0 ? { parts } : {}), way, decisions }
}

const TAKEN_OUT = 'it was taken out here since the copy was made, and is as it was there'

/** What comes from the source without a question: what only it has changed since one was copied from the other. */
function settledChoice(records: Records, target: TopicId, source: TopicRecord): Choice | undefined {
  const settled = settledBetween(records, records.need('topic', target), source)
  const takes = CHOSEN_FIELDS.filter((field) => (settled?.takes as readonly string[] | undefined)?.includes(field))
  return takes.length > 0 ? { takes, text: null } : undefined
}

function whyOfOrigin(records: Records, target: TopicId, source: TopicRecord): string {
  const settled = settledBetween(records, records.need('topic', target), source)
  if (!settled) return 'both are copies of one topic'
  const told = [
    settled.takes.length > 0 && `changed only there: ${settled.takes.join(', ')}`,
    settled.keeps.length > 0 && `changed only here: ${settled.keeps.join(', ')}`,
  ].filter(Boolean)
  return ['one is a copy of the other', ...told].join('; ')
}

const isLoose = ({ place }: TopicRecord): boolean => place.kind === 'loose'

function headOf(records: Records, [map, id]: Part): TopicRecord {
  const head = records.get('topic', id)
  if (head?.place.map !== map) throw new RangeError(`The topic ${id} is not on the map ${map}.`)
  return head
}

function rootOf(records: Records, map: MapId): TopicRecord {
  const root = records.root(map)
  if (!root) throw new RangeError(`The map ${map} is not among the records.`)
  return root
}
