import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import { command, type NewChange, namedAll } from './command'
import { duplicateBranches } from './duplicate-branches'
import { headsOnly, moveTopics } from './move-topics'
import { copyToPlace, putToPlace } from './to-place'

/** Where things are gathered to be sorted: the drawer of a map, or the end of a branch. */
type GatheredInto = { drawer: MapId } | { branch: TopicId }

interface Gathering {
  topics: readonly TopicId[]
  into: GatheredInto
  copies: boolean
}

/**
 * Brings branches together from anywhere in the collection, moved or as copies, to be sorted. What is there already is left
 * where it is. Refused where nothing is left to bring, for roots that would move, and for a branch that would hang on itself.
 * O(topics of the branches).
 */
export const gatherTopics = command((change, args: Gathering) => {
  const heads = headsOnly(change.records, args.topics)
  const topics = heads.map(({ id }) => id)
  if (topics.length === 0) refuse('gone', 'There is nothing to bring here.')
  const { select } = intoPlace(change, topics, args)
  return { label: `Gather ${namedAll(heads, 'branches')} to be sorted`, select }
})

function intoPlace(change: NewChange, topics: readonly TopicId[], { into, copies }: Gathering) {
  if ('drawer' in into) return (copies ? copyToPlace : putToPlace).within(change, { topics, map: into.drawer })
  return copies
    ? duplicateBranches.within(change, { topics, onto: into.branch })
    : moveTopics.within(change, { topics, parent: into.branch, after: 'last', side: null })
}
