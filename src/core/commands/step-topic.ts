import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { Side, TopicRecord } from '../records/topic'
import type { Making, Outcome } from './command'
import { moveTopics } from './move-topics'

export type Step = 'up' | 'down' | 'out' | 'in' | 'left' | 'right'

/**
 * Moves a branch by one step: before or after its neighbour (on the same side), out to its parent's level, in below
 * the sibling before it, or, for first-level branches, to the other side of the root. `left` and `right` mean in or
 * out according to the side on which the branch grows. Refused where there is no such step.
 */
export function stepTopic(records: Records, args: { topic: TopicId; step: Step }, making: Making): Outcome {
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const parent =
    records.get('topic', topic.place.parent) ?? refuse('root', 'This topic hangs on nothing, so it has no order.')
  const siblings = records.children(parent.id).filter((sibling) => sibling.place.side === topic.place.side)
  const at = siblings.findIndex((sibling) => sibling.id === topic.id)
  const move = (below: TopicRecord, after: TopicId | null | 'last', side: Side | null = null) =>
    moveTopics(records, { topics: [topic.id], parent: below.id, after, side }, making)

  const grows = growingSide(records, topic)
  const atRoot = topic.place.side !== null
  switch (args.step) {
    case 'up': {
      const before = siblings[at - 1] ?? refuse('invalid', 'It is the first already.')
      const all = records.childrenWithTrashed(parent.id)
      return move(parent, all[all.findIndex((sibling) => sibling.id === before.id) - 1]?.id ?? null)
    }
    case 'down':
      return move(parent, (siblings[at + 1] ?? refuse('invalid', 'It is the last already.')).id)
    case 'out': {
      const grandparent = records.get('topic', parent.place.parent) ?? refuse('invalid', 'It cannot go further out.')
      return move(grandparent, parent.id, grandparent.place.parent === null ? parent.place.side : null)
    }
    case 'in':
      return move(siblings[at - 1] ?? refuse('invalid', 'There is no topic before it to hang on.'), 'last')
    case 'left':
    case 'right': {
      if (args.step === grows) return stepTopic(records, { topic: topic.id, step: 'in' }, making)
      if (atRoot) return move(parent, lastOn(records, parent, args.step), args.step)
      return stepTopic(records, { topic: topic.id, step: 'out' }, making)
    }
  }
}

const lastOn = (records: Records, parent: TopicRecord, side: Side): TopicId | 'last' =>
  records.children(parent.id).findLast((child) => child.place.side === side)?.id ?? 'last'

/** The side on which a topic's children appear. */
function growingSide(records: Records, topic: TopicRecord): Side {
  let at: TopicRecord | undefined = topic
  while (at) {
    if (at.place.side) return at.place.side
    at = records.get('topic', at.place.parent)
  }
  return 'right'
}
