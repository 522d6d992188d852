import { refuse } from '../changes/problem'
import type { Drawn } from '../records/crosslink'
import { CrosslinkId, type EnclosureId, type MapId, type TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { Draft, type Making, named, type Outcome } from './command'

/** Where a cross-link leads. */
export type LinkTarget = { topic: TopicId } | { map: MapId } | { enclosure: EnclosureId }

/** Links a topic to another topic, to an enclosure or to a map, anywhere in the collection. */
export function addCrosslink(
  records: Records,
  args: { from: TopicId; to: LinkTarget; drawn: Drawn },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const from = records.get('topic', args.from) ?? refuse('gone', 'The topic where the link begins is gone.')
  const end = endOf(records, from.id, args.to)
  if (end.toTopic === from.id) refuse('invalid', 'A link leads from one topic to another.')
  const same = records
    .crosslinksFrom(from.id)
    .some((link) => link.toTopic === end.toTopic && link.toMap === end.toMap && link.toEnclosure === end.toEnclosure)
  if (same) refuse('exists', 'These two are linked already.')
  draft.create('crosslink', {
    id: draft.newId(CrosslinkId),
    from: from.id,
    ...end,
    label: '',
    drawn: args.drawn,
    trashed: false,
  })
  return draft.outcome(`Link ${named(from.text)}`, [from.id])
}

function endOf(records: Records, from: TopicId, to: LinkTarget) {
  if ('topic' in to) return { toTopic: to.topic, toMap: null, toEnclosure: null }
  if ('map' in to) return { toTopic: null, toMap: to.map, toEnclosure: null }
  const enclosure = records.get('enclosure', to.enclosure)
  if (!enclosure || enclosure.trashed) refuse('gone', 'This enclosure is gone.')
  const inside = enclosure.topics.find((topic) => topic !== from && records.get('topic', topic)?.trashed === false)
  if (!inside) refuse('invalid', 'A topic cannot be linked with the enclosure around nothing but itself.')
  return { toTopic: inside, toMap: null, toEnclosure: enclosure.id }
}

/** Links to enclosures of which the topic that tells their place is about to go lead to one that stays. */
export function keepEnclosureLinks(draft: Draft, going: ReadonlySet<TopicId>): void {
  const { records } = draft
  for (const topic of going)
    for (const link of records.crosslinksTo(topic)) {
      const inside = records.get('enclosure', link.toEnclosure)?.topics ?? []
      const stays = inside.find(
        (id) => !going.has(id) && id !== link.from && records.get('topic', id)?.trashed === false,
      )
      if (stays) draft.update('crosslink', link.id, { toTopic: stays })
    }
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
