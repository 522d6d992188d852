import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import { branch } from '../tree/walk'
import { command, named } from './command'
import { regainHomeDoorways } from './home-doorways'

/**
 * Takes a branch out of the trash. Doorways in it become home doorways of maps that have none. Refused where it is
 * gone, or not in the trash. O(topics of the branch).
 */
export const restoreTopic = command((change, args: { topic: TopicId }) => {
  const head = change.topic(args.topic)
  if (!head.trashed) refuse('invalid', 'This topic is not in the trash.')
  change.update('topic', head.id, { trashed: false })
  regainHomeDoorways(change, [...branch(change.records, change.topic(head.id))])
  return { label: `Restore ${named(head.text)}`, select: [head.id] }
})
