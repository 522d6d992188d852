import { READABLE_PX } from '../layout/view'
import type { Records } from '../records/records'

/** What makes a map hard to read, or a division of it poor; see `dividedBest`. Counts are topics. */
export interface Bearable {
  /** Up to here a map reads well. */
  target: number
  /** Beyond this it is crowded. */
  limit: number
  /** Below this a map is not worth going to. */
  least: number
}

/** As many topics as are read at a look, and as are read at all. */
export const BEARABLE: Bearable = { target: 40, limit: 60, least: 7 }

/** What is called hard to read in a collection: too many topics, or text that is smaller than so many px when fitted. */
export interface Limits extends Bearable {
  px: number
}

/** The limits that a person has set for a collection, else the usual ones. */
export function limitsOf(records: Records): Limits {
  const own = records.collection()?.limits
  if (!own) return { ...BEARABLE, px: READABLE_PX }
  const target = Math.round((own.topics * BEARABLE.target) / BEARABLE.limit)
  return { target, limit: own.topics, least: BEARABLE.least, px: own.px }
}

/** What a division costs, in one unit: a topic over the limit weighs most, then a map too small to be worth a door, then a cut link. */
export const COSTS = {
  /** A topic more than the limit. */
  over: 12,
  /** A map at its limit; from the target on it grows with the square. */
  full: 10,
  /** A topic that a map has less than is worth it. */
  lacking: 6,
  /** A cross-link that leads from map to map then. */
  cut: 5,
  /** A map to go to. */
  map: 4,
} as const

/** What a map of so many topics costs. Grows by `COSTS.over` a topic beyond the limit. */
export function pieceCost(topics: number, { target, limit, least }: Bearable): number {
  if (topics < least) return (least - topics) * COSTS.lacking
  if (topics <= target) return 0
  const fill = (Math.min(topics, limit) - target) / (limit - target)
  return COSTS.full * fill * fill + Math.max(0, topics - limit) * COSTS.over
}
