import { generateNKeysBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { isRoot, type Side, type TopicRecord } from '../records/topic'
import { ancestors } from '../tree/walk'
import { Draft, type Making, named, type Outcome } from './command'
import { hasSides } from './layouts'
import { sideForNew } from './sides'

/** Those topics that have none of the others above them, in the order given. */
export function headsOnly(records: Records, topics: readonly TopicId[]): TopicRecord[] {
  const chosen = new Set<string>(topics)
  return topics.flatMap((id) => {
    const topic = records.get('topic', id)
    if (!topic) return []
    for (const above of ancestors(records, topic)) if (chosen.has(above.id)) return []
    return [topic]
  })
}

/**
 * Hangs branches below `parent`, one after the other, behind the sibling `after` (null: first). `side` counts where
 * the parent is a root; without it a branch that already hangs there keeps its side.
 */
export function moveTopics(
  records: Records,
  args: { topics: TopicId[]; parent: TopicId; after: TopicId | null | 'last'; side: Side | null },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const heads = headsOnly(records, args.topics)
  const parent = records.get('topic', args.parent) ?? refuse('gone', 'The topic that this should hang on is gone.')
  const moving = new Set<string>(heads.map((topic) => topic.id))
  if (heads.length === 0) refuse('gone', 'There is nothing to move.')
  if (heads.some(isRoot)) refuse('root', 'The root of a map stays where it is.')
  if (moving.has(parent.id)) refuse('loop', 'A topic cannot hang below itself.')
  for (const above of ancestors(records, parent))
    if (moving.has(above.id)) refuse('loop', 'A topic cannot hang below itself.')

  const siblings = records.childrenWithTrashed(parent.id).filter((sibling) => !moving.has(sibling.id))
  const at = args.after === 'last' ? siblings.length - 1 : siblings.findIndex((sibling) => sibling.id === args.after)
  const ranks = generateNKeysBetween(
    siblings[at]?.place.rank ?? null,
    siblings[at + 1]?.place.rank ?? null,
    heads.length,
  )
  heads.forEach((topic, i) => {
    const kept = topic.place.parent === parent.id ? topic.place.side : null
    const side = hasSides(parent) ? (args.side ?? kept ?? sideForNew(records, parent, siblings[at])) : null
    draft.update('topic', topic.id, {
      place: { map: parent.place.map, parent: parent.id, rank: ranks[i]!, side, x: null, y: null },
    })
  })
  if (parent.folded) draft.update('topic', parent.id, { folded: false })
  const what = heads.length === 1 ? named(heads[0]!.text) : `${heads.length} branches`
  return draft.outcome(
    `Move ${what}`,
    heads.map((topic) => topic.id),
  )
}
