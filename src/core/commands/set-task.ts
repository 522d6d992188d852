import type { TopicId } from '../records/ids'
import type { TaskState } from '../records/topic'
import { command, namedAll } from './command'

const STATE_NAMES: Record<TaskState, string> = { open: 'to do', begun: 'begun', done: 'done' }

/** Makes topics tasks in a state; null makes them plain topics again. Refused where one is gone. */
export const setTask = command((change, args: { topics: readonly TopicId[]; task: TaskState | null }) => {
  const topics = args.topics.map((id) => change.topic(id))
  for (const topic of topics) change.update('topic', topic.id, { task: args.task })
  const what = namedAll(topics)
  const label = args.task ? `Mark ${what} as ${STATE_NAMES[args.task]}` : `Make ${what} no task`
  return { label, select: [...args.topics] }
})
