import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import type { Dates } from '../records/topic'
import { command, named } from './command'

/**
 * Gives a topic a day or a span of days, in ISO 8601; null takes them away.
 * Refused where the topic is gone, or the span would end before it begins.
 */
export const setDates = command((change, args: { topic: TopicId; dates: Dates | null }) => {
  const topic = change.topic(args.topic)
  if (args.dates?.end && args.dates.end < args.dates.start) refuse('invalid', 'A span of days ends after it begins.')
  change.update('topic', topic.id, { dates: args.dates })
  const label = args.dates ? `Date ${named(topic.text)}` : `Take the date off ${named(topic.text)}`
  return { label, select: [topic.id] }
})
