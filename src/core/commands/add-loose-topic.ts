import { type MapId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { blankTopic } from './add-topic'
import { Draft, type Making, named, type Outcome } from './command'

/** Adds a topic that hangs on nothing, at a point of the map in map units. */
export function addLooseTopic(
  records: Records,
  args: { map: MapId; x: number; y: number; text: string },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const place = { map: args.map, parent: null, rank: 'a0', side: null, x: args.x, y: args.y }
  const topic = draft.create('topic', blankTopic(draft.newId(TopicId), place, args.text))
  return draft.outcome(`Add ${named(args.text)}`, [topic.id])
}
