import type { TopicRecord } from '../records/topic'
import type { NewChange } from './command'
import { releaseHomeDoorways } from './home-doorways'

/** Puts branches into the trash; maps whose home doorway goes with them get another one, or none. */
export function trashBranches(change: NewChange, heads: readonly TopicRecord[]): void {
  for (const { id } of heads) change.update('topic', id, { trashed: true })
  releaseHomeDoorways(change, heads)
}
