import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { isRoot } from '../records/topic'
import { Draft, type Making, named, type Outcome } from './command'
import { keepEnclosureLinks } from './crosslinks'
import { releaseHomeDoorways } from './home-doorways'
import { headsOnly } from './move-topics'

/** Puts branches into the trash; maps whose home doorway goes with them get another one, or none. */
export function deleteTopics(records: Records, args: { topics: TopicId[] }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const heads = headsOnly(records, args.topics).filter((topic) => !topic.trashed)
  if (heads.length === 0) refuse('gone', 'There is nothing to delete.')
  if (heads.some(isRoot)) refuse('root', 'A map keeps its root topic. To remove it, put the whole map into the trash.')
  for (const head of heads) draft.update('topic', head.id, { trashed: true })
  releaseHomeDoorways(draft, heads)
  const gone = new Set(heads.map((topic) => topic.id))
  keepEnclosureLinks(draft, gone)

  const first = heads[0]!
  const siblings = first.place.parent ? records.children(first.place.parent) : []
  const at = siblings.findIndex((topic) => topic.id === first.id)
  const next =
    siblings.slice(at).find((topic) => !gone.has(topic.id)) ??
    siblings.slice(0, Math.max(at, 0)).findLast((topic) => !gone.has(topic.id))
  const select = next?.id ?? first.place.parent ?? records.root(first.place.map)?.id
  const what = heads.length === 1 ? named(first.text) : `${heads.length} branches`
  return draft.outcome(`Delete ${what}`, select ? [select] : [])
}
