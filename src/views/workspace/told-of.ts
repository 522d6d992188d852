import { isOverdue } from '../../core/dates/agenda'
import type { Records } from '../../core/records/records'
import type { TopicRecord } from '../../core/records/topic'
import { sayDays } from '../app/when'

/** The days of a topic in words, and whether its task should have been done by then; null where it has none. */
export function daysOf({ dates, task }: TopicRecord, today: string | null): { words: string; isLate: boolean } | null {
  if (!dates) return null
  const isLate = today !== null && isOverdue({ dates, task }, today)
  return { words: `dated ${sayDays(dates)}${isLate ? ', overdue' : ''}`, isLate }
}

/** The frames in which a topic stands, in words. */
export const framesOf = (records: Records, topic: string): string[] =>
  records.enclosuresOf(topic).flatMap(({ title }) => (title ? [`in the frame ${title}`] : []))
