import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'

/** How far the tasks in a branch are. */
export interface Progress {
  tasks: number
  done: number
  /** By their effort, in percent; each counts alike where none of them says how much work it is. */
  percent: number
}

/** An hour, for those among others that say nothing, in minutes. */
const USUAL_EFFORT = 60

/**
 * How far what lies below a topic is; null where there is no task. A task with tasks of its own below it is as far as these, unless it says
 * itself how far it is. O(topics of the branch).
 */
export function progressBelow(records: Records, topic: TopicRecord): Progress | null {
  const counted = below(records, topic)
  if (counted.tasks === 0) return null
  return { tasks: counted.tasks, done: counted.done, percent: Math.round((100 * counted.finished) / counted.effort) }
}

interface Sum {
  tasks: number
  done: number
  effort: number
  /** The part of the effort that is done. */
  finished: number
}

/** Of all that hangs below a topic; from the leaves up, without recursion. */
function below(records: Records, head: TopicRecord): Sum {
  const sums = new Map<string, Sum>()
  const order: TopicRecord[] = []
  const waiting = [head]
  for (let topic = waiting.pop(); topic; topic = waiting.pop()) {
    order.push(topic)
    waiting.push(...records.children(topic.id))
  }
  for (const topic of order.reverse()) {
    const sum: Sum = { tasks: 0, done: 0, effort: 0, finished: 0 }
    for (const child of records.children(topic.id)) {
      const part = asTask(child, sums.get(child.id)!)
      sum.tasks += part.tasks
      sum.done += part.done
      sum.effort += part.effort
      sum.finished += part.finished
    }
    sums.set(topic.id, sum)
  }
  return sums.get(head.id)!
}

/** What a topic counts for above it, with what hangs below it. */
function asTask({ task, work }: TopicRecord, inside: Sum): Sum {
  if (task === null) return inside
  const effort = work?.effort ?? (inside.tasks > 0 ? inside.effort : USUAL_EFFORT)
  const part =
    task === 'done'
      ? 1
      : work?.progress !== undefined
        ? work.progress / 100
        : inside.effort > 0
          ? inside.finished / inside.effort
          : 0
  // A task that is made of others is these.
  if (inside.tasks > 0)
    return { tasks: inside.tasks, done: task === 'done' ? inside.tasks : inside.done, effort, finished: effort * part }
  return { tasks: 1, done: task === 'done' ? 1 : 0, effort, finished: effort * part }
}
