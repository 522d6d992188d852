import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { isRoot } from '../records/topic'
import { titleOf } from '../text/title'
import { Draft, type Making, named, type Outcome } from './command'
import { createMap } from './maps'
import { evenSidesOf } from './sides'

/**
 * Moves what lies below a topic into a new child map and makes the topic its doorway. Ids stay, so notes, files,
 * links and history go with their topics, and cross-links between the two become links between maps.
 */
export function splitOff(records: Records, args: { topic: TopicId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const children = records.children(topic.id)
  if (isRoot(topic)) refuse('root', 'The root of a map cannot be split off: choose a branch.')
  if (topic.opensMap) refuse('doorway', 'This topic opens a map already.')
  if (children.length === 0) refuse('invalid', 'There is nothing below this topic to split off.')
  const { map, root } = createMap(draft, titleOf(topic.text) || 'Untitled', topic.text, topic.id)
  const sides = new Map(evenSidesOf(records, children).map((side, i) => [children[i]!.id, side]))
  for (const child of records.childrenWithTrashed(topic.id)) {
    const place = { map, parent: root, rank: child.place.rank, side: sides.get(child.id) ?? 'right', x: null, y: null }
    draft.update('topic', child.id, { place })
  }
  draft.update('topic', topic.id, { opensMap: map, folded: false })
  return draft.outcome(`Split off ${named(topic.text)}`, [topic.id])
}
