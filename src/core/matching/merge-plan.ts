import type { MapId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { type Choice, type Decision, type Meant, type MergePlan, type MergeWay, type Part, ROOTS } from './decisions'
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
 * that their parent went to. What a person has said goes before what is found. Costs what matching each source with the
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
    if (way === 'combined') {
      join(sourceRoot.id, { into: targetRoot.id, sure: 1, why: ROOTS })
      for (const { id } of topics) {
        const other = said.get(id)
        if (other && records.get('topic', other)?.place.map === target)
          join(id, { into: other, sure: 1, why: 'as you said' })
      }
      for (const match of matchMaps(into.tree, tree, lexicon)) {
        const [topic, other] = [topics[match.b]!.id, into.topics[match.a]!.id]
        if (said.has(topic) || joins.has(topic)) continue
        const meant = { into: other, sure: match.sure, why: whySame(match, into.tree, tree, lexicon) }
        if (match.class === 'same') join(topic, meant)
        else if (match.sure >= WORTH_ASKING) likely.set(topic, meant)
      }
    }
    topics.forEach((topic, node) => {
      const meant = joins.get(topic.id)
      const parent = node === 0 || tree.parents[node]! < 0 ? null : topics[tree.parents[node]!]!.id
      const below = parent === null || isLoose(topic) ? targetRoot.id : (joins.get(parent)?.into ?? { copyOf: parent })
      const choice = choices.get(topic.id)
      if (meant) decisions.push({ act: 'join', source: topic.id, ...meant, ...(choice ? { choice } : {}) })
      else {
        const other = likely.get(topic.id)
        const isOpen = other && !taken.has(other.into)
        decisions.push({ act: 'add', source: topic.id, below, ...(isOpen ? { likely: other } : {}) })
      }
    })
  }
  return { target, sources: [...sources], ...(parts.length > 0 ? { parts } : {}), way, decisions }
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
