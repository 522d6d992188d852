import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import { isRoot, parentOf } from '../records/place'
import { command, namedAll } from './command'
import { headsOnly } from './move-topics'
import { trashBranches } from './trash-branches'

/**
 * Puts branches into the trash; maps whose home doorway goes with them get another one, or none. Selects what stands
 * next to them. Refused where nothing is left to delete, and for roots. O(topics of the branches).
 */
export const deleteTopics = command((change, args: { topics: readonly TopicId[] }) => {
  const { records } = change
  const heads = headsOnly(records, args.topics).filter((topic) => !topic.trashed)
  const first = heads[0] ?? refuse('gone', 'There is nothing to delete.')
  if (heads.some(isRoot)) refuse('root', 'A map keeps its root topic. To remove it, put the whole map into the trash.')
  const parent = parentOf(first)
  const siblings = parent ? records.children(parent) : []
  trashBranches(change, heads)

  const gone = new Set(heads.map((topic) => topic.id))
  const at = siblings.findIndex((topic) => topic.id === first.id)
  const next =
    siblings.slice(at).find((topic) => !gone.has(topic.id)) ??
    siblings.slice(0, Math.max(at, 0)).findLast((topic) => !gone.has(topic.id))
  const select = next?.id ?? parent ?? records.root(first.place.map)?.id
  return { label: `Delete ${namedAll(heads, 'branches')}`, select: select ? [select] : [] }
})
