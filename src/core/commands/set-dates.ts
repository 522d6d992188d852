import { refuse } from '../changes/problem'
import type { Dates } from '../records/dates'
import type { TopicId } from '../records/ids'
import { command, namedAll } from './command'

/**
 * Gives topics a day or a span of days, in ISO 8601; null takes them away.
 * Refused where one is gone, or the span would end before it begins.
 */
export const setDates = command((change, args: { topics: readonly TopicId[]; dates: Dates | null }) => {
  const topics = args.topics.map((id) => change.topic(id))
  if (args.dates?.end && args.dates.end < args.dates.start) refuse('invalid', 'A span of days ends after it begins.')
  for (const { id } of topics) change.update('topic', id, { dates: args.dates })
  const what = namedAll(topics)
  return { label: args.dates ? `Date ${what}` : `Take the date off ${what}`, select: [...args.topics] }
})
