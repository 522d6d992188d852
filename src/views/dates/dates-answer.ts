import { z } from 'zod'
import { timesOf } from '../../core/dates/repeating'
import { Dates, TaskState, Work } from '../../core/records/dates'
import { dayNumber, isoDay } from '../../core/text/days'

const DatedTopic = z.object({
  topic: z.string(),
  text: z.string(),
  map: z.string(),
  mapTitle: z.string(),
  dates: Dates,
  task: TaskState.nullable(),
  work: Work.nullable(),
  tags: z.array(z.string()),
})
/** A topic at one of its times; those after the first one only tell that it repeats. */
export type DatedTopic = z.infer<typeof DatedTopic> & { isRepetition?: true }

/** What the server tells of topics with a day; see server/dates. */
export const DatesAnswer = z.array(DatedTopic)

/** Where the date of a topic is seen and set. */
export const addressOfTopic = (collection: string, map: string, topic: string): string =>
  `/c/${collection}/m/${map}?topic=${topic}&section=dates`

export const addressOf = (collection: string, { map, topic }: DatedTopic): string =>
  addressOfTopic(collection, map, topic)

/** How far ahead repetitions are shown, in days, and most of one topic. */
const [AHEAD, MOST] = [400, 60]

/** Rows with the times after the first one of what repeats, from a month ago on. */
export function withRepetitions(rows: readonly DatedTopic[], today: string): DatedTopic[] {
  const [from, to] = [isoDay(dayNumber(today) - 31), isoDay(dayNumber(today) + AHEAD)]
  return rows.flatMap((row) => {
    if (!row.dates.repeats) return row
    const later = timesOf(row.dates, from, to, MOST)
    const others = later.filter(({ start }) => start !== row.dates.start)
    return [row, ...others.map((dates) => ({ ...row, dates, task: null, isRepetition: true as const }))]
  })
}

export const keyOf = ({ topic, dates }: DatedTopic): string => `${topic} ${dates.start}`

/** What can be done with what is dated. */
export interface DateActs {
  mayEdit(map: string): boolean
  setDates(row: DatedTopic, dates: Dates | null): void
  move(row: DatedTopic, days: number): void
  tick(row: DatedTopic, isDone: boolean): void
  hueOf(map: string): string
}
