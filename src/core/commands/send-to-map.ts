import { refuse } from '../changes/problem'
import type { MapId, TopicId } from '../records/ids'
import { command, namedAll } from './command'
import { duplicateBranches } from './duplicate-branches'
import { headsOnly, moveTopics } from './move-topics'

/**
 * Moves branches, or copies of them, to the end of another map, below its root; links to what moves stay right, since ids stay.
 * Refused where the map or all branches are gone, for roots, and as moving and copying are. O(topics of the branches).
 */
export const sendToMap = command((change, args: { topics: readonly TopicId[]; map: MapId; copies: boolean }) => {
  const map = change.map(args.map)
  const root = (map.trashed ? undefined : change.records.root(map.id)) ?? refuse('gone', 'This map is gone.')
  const heads = headsOnly(change.records, args.topics)
  const topics = heads.map(({ id }) => id)
  const { select } = args.copies
    ? duplicateBranches.within(change, { topics, onto: root.id })
    : moveTopics.within(change, { topics, parent: root.id, after: 'last', side: null })
  return { label: `${args.copies ? 'Copy' : 'Move'} ${namedAll(heads, 'branches')} to another map`, select }
})
