import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { Dates } from '../records/topic'
import { Draft, type Making, named, type Outcome } from './command'

/** Gives a topic a day or a span of days, in ISO 8601; null takes them away. */
export function setDates(records: Records, args: { topic: TopicId; dates: Dates | null }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  if (args.dates?.end && args.dates.end < args.dates.start) refuse('invalid', 'A span of days ends after it begins.')
  draft.update('topic', topic.id, { dates: args.dates })
  return draft.outcome(args.dates ? `Date ${named(topic.text)}` : `Take the date off ${named(topic.text)}`, [topic.id])
}
