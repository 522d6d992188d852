import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import { isRoot, parentOf, type Side, sideOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { ancestors } from '../tree/walk'
import { command, namedAll } from './command'
import { hang } from './hang'

/** Those topics that have none of the others above them, in the order given, each once. */
export function headsOnly(records: Records, topics: readonly TopicId[]): TopicRecord[] {
  const chosen = new Set<TopicId>(topics)
  return [...chosen].flatMap((id) => {
    const topic = records.get('topic', id)
    if (!topic) return []
    for (const above of ancestors(records, topic)) if (chosen.has(above.id)) return []
    return [topic]
  })
}

/**
 * Hangs branches below `parent`, one after the other, behind the sibling `after` (null: first). `side` counts where
 * the parent has sides; without it a branch that already hangs there keeps its side, and one that is sent to the other side is
 * held there. Refused where something is gone,
 * for roots, and below itself. O(children of the parent; topics of the branches where they change maps).
 */
export const moveTopics = command(
  (
    change,
    args: { topics: readonly TopicId[]; parent: TopicId; after: TopicId | null | 'last'; side: Side | null },
  ) => {
    const heads = headsOnly(change.records, args.topics)
    const parent = change.topic(args.parent, 'The topic that this should hang on is gone.')
    const moving = new Set<string>(heads.map((topic) => topic.id))
    if (heads.length === 0) refuse('gone', 'There is nothing to move.')
    if (heads.some(isRoot)) refuse('root', 'The root of a map stays where it is.')
    for (const at of [parent, ...ancestors(change.records, parent)])
      if (moving.has(at.id)) refuse('loop', 'A topic cannot hang below itself.')
    const sent = heads.filter((head) => parentOf(head) === parent.id && args.side && sideOf(head) !== args.side)
    hang(change, heads, { parent, after: args.after, side: args.side })
    // Whoever sends a branch to the other side wants it there.
    for (const { id } of sent) change.update('topic', id, { held: true })
    return { label: `Move ${namedAll(heads, 'branches')}`, select: heads.map((topic) => topic.id) }
  },
)
