import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { branchWithTrashed } from '../tree/walk'
import { Draft, type Making, named, type Outcome } from './command'

/** Takes a branch out of the trash. Doorways in it become home doorways of maps that have none. */
export function restoreTopic(records: Records, args: { topic: TopicId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const head = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  draft.update('topic', head.id, { trashed: false })
  for (const topic of branchWithTrashed(records, head)) {
    const map = records.get('map', topic.opensMap)
    if (map && map.homeDoorway === null && map.id !== topic.place.map)
      draft.update('map', map.id, { homeDoorway: topic.id })
  }
  return draft.outcome(`Restore ${named(head.text)}`, [head.id])
}
