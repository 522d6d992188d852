import { z } from 'zod'
import { Dates, TaskState } from '../../core/records/topic'

const DatedTopic = z.object({
  topic: z.string(),
  text: z.string(),
  map: z.string(),
  mapTitle: z.string(),
  dates: Dates,
  task: TaskState.nullable(),
  tags: z.array(z.string()),
})
export type DatedTopic = z.infer<typeof DatedTopic>

/** What the server tells of topics with a day; see server/dates. */
export const DatesAnswer = z.array(DatedTopic)

export const addressOf = (collection: string, { map, topic }: DatedTopic): string =>
  `/c/${collection}/m/${map}?topic=${topic}&section=dates`

/** What can be done with what is dated. */
export interface DateActs {
  mayEdit(map: string): boolean
  setDates(row: DatedTopic, dates: Dates | null): void
  move(row: DatedTopic, days: number): void
  tick(row: DatedTopic, isDone: boolean): void
  hueOf(map: string): string
}
