import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import { isRoot, parentOf, type Side, sideOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { command, type Done, type NewChange } from './command'
import { moveTopics } from './move-topics'
import { layoutBelow, showsSides } from './sides'

export type Step = 'up' | 'down' | 'out' | 'in' | 'left' | 'right'

/**
 * Moves a branch by one step: before or after its neighbour (on the same side, where there are two), out to its
 * parent's level, in below the sibling before it, or, for branches of a topic with two sides, to the other one.
 * `left` and `right` mean in or out according to the side on which the branch grows. Refused where there is no such
 * step. O(siblings, and what they show).
 */
export const stepTopic = command((change, args: { topic: TopicId; step: Step }) =>
  step(change, change.topic(args.topic), args.step),
)

function step(change: NewChange, topic: TopicRecord, where: Step): Done {
  const { records } = change
  const parentId = parentOf(topic) ?? refuse('root', 'This topic hangs on nothing, so it has no order.')
  const parent = change.topic(parentId)
  const onSides = showsSides(records, parent)
  const siblings = records.children(parent.id).filter((sibling) => !onSides || sideOf(sibling) === sideOf(topic))
  const at = siblings.findIndex((sibling) => sibling.id === topic.id)
  const move = (below: TopicRecord, after: TopicId | null | 'last', side: Side | null = null) =>
    moveTopics.within(change, { topics: [topic.id], parent: below.id, after, side })

  switch (where) {
    case 'up': {
      const before = siblings[at - 1] ?? refuse('invalid', 'It is the first already.')
      const all = records.childrenWithTrashed(parent.id)
      return move(parent, all[all.findIndex((sibling) => sibling.id === before.id) - 1]?.id ?? null)
    }
    case 'down':
      return move(parent, (siblings[at + 1] ?? refuse('invalid', 'It is the last already.')).id)
    case 'out': {
      const above = records.get('topic', parentOf(parent)) ?? refuse('invalid', 'It cannot go further out.')
      return move(above, parent.id, isRoot(above) ? sideOf(parent) : null)
    }
    case 'in':
      return move(siblings[at - 1] ?? refuse('invalid', 'There is no topic before it to hang on.'), 'last')
    case 'left':
    case 'right':
      if (where === growingSide(records, topic)) return step(change, topic, 'in')
      return onSides ? move(parent, lastOn(records, parent, where), where) : step(change, topic, 'out')
    default:
      return where satisfies never
  }
}

const lastOn = (records: Records, parent: TopicRecord, side: Side): TopicId | 'last' =>
  records.children(parent.id).findLast((child) => sideOf(child) === side)?.id ?? 'last'

/** The side on which a topic's children appear. */
function growingSide(records: Records, topic: TopicRecord): Side {
  for (let at: TopicRecord | undefined = topic; at; ) {
    const parent: TopicRecord | undefined = records.get('topic', parentOf(at))
    const side = sideOf(at)
    if (side && parent && showsSides(records, parent)) return side
    at = parent
  }
  return layoutBelow(records, topic) === 'left' ? 'left' : 'right'
}
