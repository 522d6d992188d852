import { addLooseTopic } from '../../core/commands/add-loose-topic'
import { addTopic } from '../../core/commands/add-topic'
import { insertBetween } from '../../core/commands/insert-between'
import type { TopicId } from '../../core/records/ids'
import { parentOf } from '../../core/records/place'
import type { TopicRecord } from '../../core/records/topic'
import type { CollectionSession } from '../sync/collection-session'
import { workspace } from '../workspace/workspace-store'
import type { Situation } from './act'

function compose({ session, index }: Situation, command: Parameters<CollectionSession['compose']>[0]): void {
  const topic = session.compose(command)
  if (topic) workspace.edit(index, { topic, text: '' })
}

export function composeChild(situation: Situation, parent: TopicRecord): void {
  compose(situation, (records, newIds) => addTopic(records, { parent: parent.id, after: 'last', text: '' }, newIds))
}

/** After a topic; on a root a new first-level topic, on a loose head another one below it. */
export function composeSibling(situation: Situation, topic: TopicRecord): void {
  const parent = parentOf(topic)
  if (parent === null) composeChild(situation, topic)
  else compose(situation, (records, newIds) => addTopic(records, { parent, after: topic.id, text: '' }, newIds))
}

/** A topic between branches and the one on which they hang. */
export function composeAbove(situation: Situation, topics: readonly TopicId[]): void {
  compose(situation, (records, newIds) => insertBetween(records, { topics, text: '' }, newIds))
}

export function composeLoose(situation: Situation, x: number, y: number): void {
  compose(situation, (records, newIds) => addLooseTopic(records, { map: situation.pane.map, x, y, text: '' }, newIds))
}
