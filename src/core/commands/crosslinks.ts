import { refuse } from '../changes/problem'
import type { Drawn } from '../records/crosslink'
import { CrosslinkId, type MapId, type TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { Draft, type Making, named, type Outcome } from './command'

/** Where a cross-link leads. */
export type LinkTarget = { topic: TopicId } | { map: MapId }

/** Links a topic to another topic or to a map, anywhere in the collection. */
export function addCrosslink(
  records: Records,
  args: { from: TopicId; to: LinkTarget; drawn: Drawn },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const from = records.get('topic', args.from) ?? refuse('gone', 'The topic where the link begins is gone.')
  const toTopic = 'topic' in args.to ? args.to.topic : null
  const toMap = 'map' in args.to ? args.to.map : null
  if (toTopic === from.id) refuse('invalid', 'A link leads from one topic to another.')
  const same = records.crosslinksFrom(from.id).some((link) => link.toTopic === toTopic && link.toMap === toMap)
  if (same) refuse('exists', 'These two are linked already.')
  draft.create('crosslink', {
    id: draft.newId(CrosslinkId),
    from: from.id,
    toTopic,
    toMap,
    label: '',
    drawn: args.drawn,
    trashed: false,
  })
  return draft.outcome(`Link ${named(from.text)}`, [from.id])
}

export function drawCrosslink(
  records: Records,
  args: { crosslink: CrosslinkId; drawn: Drawn },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  draft.update('crosslink', args.crosslink, { drawn: args.drawn })
  return draft.outcome(args.drawn === 'line' ? 'Draw a cross-link' : 'Make a cross-link quiet')
}

export function removeCrosslink(records: Records, args: { crosslink: CrosslinkId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  draft.update('crosslink', args.crosslink, { trashed: true })
  return draft.outcome('Remove a cross-link')
}
