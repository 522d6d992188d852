import { nextTime } from '../dates/repeating'
import type { TaskState, Work } from '../records/dates'
import type { TopicId } from '../records/ids'
import type { TopicRecord } from '../records/topic'
import { ENGLISH } from '../text/days'
import { command, namedAll } from './command'

const STATE_NAMES: Record<TaskState, string> = { open: 'to do', begun: 'begun', done: 'done' }

/**
 * Makes topics tasks in a state; null makes them plain topics again. `today` is the day on which that is, in ISO 8601: it is kept of what
 * is done. What repeats is not done with that, but to do again when it is next. Refused where one is gone.
 */
export const setTask = command(
  (change, args: { topics: readonly TopicId[]; task: TaskState | null; today: string }) => {
    const topics = args.topics.map((id) => change.topic(id))
    const next = topics.map((topic) => (args.task === 'done' && topic.dates ? nextTime(topic.dates) : null))
    topics.forEach((topic, i) => {
      const again = next[i]
      if (again) change.update('topic', topic.id, { dates: again, task: 'open', work: without(topic.work, 'progress') })
      else change.update('topic', topic.id, { task: args.task, work: doneAs(topic, args.task, args.today) })
    })
    const what = namedAll(topics)
    const [first] = next
    const label = args.task
      ? topics.length === 1 && first
        ? `Tick off ${what}: again on ${ENGLISH.wholeDay(first.start)}`
        : `Mark ${what} as ${STATE_NAMES[args.task]}`
      : `Make ${what} no task`
    return { label, select: [...args.topics] }
  },
)

/** What is known of the work on a topic once it is in another state on a day. */
export function doneAs({ task, work }: TopicRecord, next: TaskState | null, today: string): Work | null {
  if (next === 'done') return task === 'done' ? work : { ...work, doneOn: today }
  return without(work, 'doneOn')
}

/** What is known of some work without one thing; null where nothing is left. */
function without(work: Work | null, field: keyof Work): Work | null {
  if (!work || !(field in work)) return work
  const { [field]: _, ...rest } = work
  return Object.keys(rest).length > 0 ? rest : null
}
