import { type MapId, TopicId } from '../records/ids'
import { blankTopic } from './blank-topic'
import { command, named } from './command'

/** Adds a topic that hangs on nothing, at a point of the map in map units. */
export const addLooseTopic = command((change, args: { map: MapId; x: number; y: number; text: string }) => {
  const place = { kind: 'loose' as const, map: args.map, x: args.x, y: args.y }
  const topic = change.create('topic', blankTopic(change.newId(TopicId), place, args.text))
  return { label: `Add ${named(args.text)}`, select: [topic.id] }
})
