import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import type { Look } from '../records/look'
import type { Records } from '../records/records'
import { isRoot, type TopicRecord } from '../records/topic'
import { titleOf } from '../text/title'
import { Draft, type Making, named, type Outcome } from './command'
import { createMap } from './maps'
import { evenSidesOf } from './sides'

/** What branches above have set for a topic and all below it; null where they have set nothing. */
function branchLookAt(records: Records, topic: TopicRecord): Look | null {
  let look: Look = {}
  for (let at: TopicRecord | undefined = topic; at; at = records.get('topic', at.place.parent))
    look = { ...at.branchLook, ...look }
  return Object.keys(look).length > 0 ? look : null
}

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
  const { map, root } = createMap(draft, titleOf(topic.text) || 'Untitled', topic.text, topic.id, {
    look: records.need('map', topic.place.map).look,
    branchLook: branchLookAt(records, topic),
  })
  const sides = new Map(evenSidesOf(records, children).map((side, i) => [children[i]!.id, side]))
  for (const child of records.childrenWithTrashed(topic.id)) {
    const place = { map, parent: root, rank: child.place.rank, side: sides.get(child.id) ?? 'right', x: null, y: null }
    draft.update('topic', child.id, { place })
  }
  draft.update('topic', topic.id, { opensMap: map, folded: false })
  return draft.outcome(`Split off ${named(topic.text)}`, [topic.id])
}
