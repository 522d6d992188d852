import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TaskState } from '../records/topic'
import { Draft, type Making, named, type Outcome } from './command'

const LABELS: Record<TaskState, string> = { open: 'to do', begun: 'begun', done: 'done' }

/** Makes topics tasks in a state; null makes them plain topics again. */
export function setTask(
  records: Records,
  args: { topics: readonly TopicId[]; task: TaskState | null },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  for (const id of args.topics) {
    const topic = records.get('topic', id) ?? refuse('gone', 'This topic is gone.')
    draft.update('topic', topic.id, { task: args.task })
  }
  const what =
    args.topics.length === 1 ? named(records.need('topic', args.topics[0]!).text) : `${args.topics.length} topics`
  return draft.outcome(args.task ? `Mark ${what} as ${LABELS[args.task]}` : `Make ${what} no task`, [...args.topics])
}
