import { z } from 'zod'
import { Doer, TaskState } from './dates'
import { MapId, SearchId, TagId } from './ids'
import { defineKind, names } from './kind'
import { storedText } from './text'

/** Longest words of a search, in UTF-16 code units, and the farthest day that one asks for, in days from today. */
export const MOST_SEARCH_WORDS = 200
export const FARTHEST_DAY = 100_000

const DaysFromToday = z.number().int().min(-FARTHEST_DAY).max(FARTHEST_DAY).nullable()

/** The states of a task that can be asked for; `left` is whatever is not done. */
export const AskedTask = z.enum(['left', ...TaskState.options])
export type AskedTask = z.infer<typeof AskedTask>

/** Days that move along with today: those of its week, from Monday on (ISO 8601), or of its month. */
export const AskedPeriod = z.enum(['week', 'month'])

const AskedDays = z.union([
  z.strictObject({ from: DaysFromToday, to: DaysFromToday }),
  z.strictObject({ period: AskedPeriod }),
])
export type AskedDays = z.infer<typeof AskedDays>

/** What a search asks for: all of it must hold. Null, or no words, is asked for nothing. */
export const SearchAsked = z.strictObject({
  /** Each is the beginning of a word; all of them stand in the topic, or all in its note. */
  words: storedText(MOST_SEARCH_WORDS),
  tag: TagId.nullable(),
  map: MapId.nullable(),
  task: AskedTask.nullable(),
  /** The last day of its dates, counted from today on: 0 is today, -1 yesterday. Null leaves an end open; both, and it has dates. */
  due: AskedDays.nullable(),
  who: Doer.nullable(),
})
export type SearchAsked = z.infer<typeof SearchAsked>

/** Asks for nothing, and finds nothing. */
export const NOTHING_ASKED: SearchAsked = { words: '', tag: null, map: null, task: null, due: null, who: null }

/** A search that is kept under a name, for everybody in the collection. */
export const SearchRecord = z.strictObject({
  id: SearchId,
  name: storedText(200).min(1),
  asked: SearchAsked,
  trashed: z.boolean(),
})
export type SearchRecord = z.infer<typeof SearchRecord>

export const searchKind = defineKind(SearchRecord, {
  references: [
    names('asked.tag', 'tag', 'The tag of this search'),
    names('asked.map', 'map', 'The map of this search'),
  ],
  seenEverywhere: true,
})
