import { addLooseTopic } from '../../core/commands/add-loose-topic'
import { addTopic } from '../../core/commands/add-topic'
import { insertBetween } from '../../core/commands/insert-between'
import type { TopicId } from '../../core/records/ids'
import { parentOf } from '../../core/records/place'
import type { TopicRecord } from '../../core/records/topic'
import type { CollectionSession } from '../sync/collection-session'
import { workspace } from '../workspace/workspace-store'
import type { Situation } from './act'

/** Adds a topic that is being written from now on. `from` is selected again where nothing comes of it. */
function compose(
  { session, index }: Situation,
  from: TopicId | undefined,
  command: Parameters<CollectionSession['compose']>[0],
): void {
  const topic = session.compose(command)
  if (topic) workspace.edit(index, { topic, text: '', ...(from && { from }) })
}

export function composeChild(situation: Situation, parent: TopicRecord): void {
  compose(situation, parent.id, (records, newIds) =>
    addTopic(records, { parent: parent.id, after: 'last', text: '' }, newIds),
  )
}

/** After a topic; on a root a new first-level topic, on a loose head another one below it. */
export function composeSibling(situation: Situation, topic: TopicRecord): void {
  const parent = parentOf(topic)
  if (parent === null) composeChild(situation, topic)
  else
    compose(situation, topic.id, (records, newIds) => addTopic(records, { parent, after: topic.id, text: '' }, newIds))
}

/** A topic between branches and the one on which they hang. */
export function composeAbove(situation: Situation, topics: readonly TopicId[]): void {
  compose(situation, topics[0], (records, newIds) => insertBetween(records, { topics, text: '' }, newIds))
}

export function composeLoose(situation: Situation, x: number, y: number): void {
  compose(situation, situation.topics[0]?.id, (records, newIds) =>
    addLooseTopic(records, { map: situation.pane.map, x, y, text: '' }, newIds),
  )
}
