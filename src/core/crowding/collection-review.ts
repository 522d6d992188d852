import type { IdSource } from '../commands/command'
import type { SplitPart } from '../commands/split-off'
import type { LayoutContext } from '../layout/boxes'
import type { MapId } from '../records/ids'
import type { Records } from '../records/records'
import { type Crowding, crowdingOf, crowdingWords } from './crowding'
import { proposeSplit, splitEffect } from './propose-split'
import { figuresOf } from './split-review'

/** What a split would come to, in numbers: of maps, of the topics of the largest, of the smallest text when fitted in px. */
export interface SplitNumbers {
  maps: number
  largest: number
  px: number
  /** Cross-links that lead from one of these maps to another. */
  between: number
}

/** A part that could be split off, with what it has on it. */
interface ProposedPart {
  part: SplitPart
  topics: number
  /** Of the map, between 0 and 1. */
  share: number
  /** Cross-links that would lead from map to map. */
  leaving: number
}

/** A map that is hard to read, why, and what could be done. */
export interface CrowdedMap {
  map: MapId
  words: string
  before: SplitNumbers
  /** With all that is proposed. */
  after: SplitNumbers
  parts: ProposedPart[]
}

/** Maps of fewer topics can be read whatever they say. */
const FEW = 12

/** What splitting off parts of a map comes to. Refused where one cannot be split off. Linear in its topics. */
export function splitNumbers(
  records: Records,
  map: MapId,
  parts: readonly SplitPart[],
  context: LayoutContext,
  ids: IdSource,
): SplitNumbers {
  const { maps, between } = splitEffect(records, map, parts, context, ids)
  return {
    maps: maps.length,
    largest: Math.max(...maps.map(({ topics }) => topics)),
    px: Math.min(...maps.map(({ px }) => px)),
    between,
  }
}

/** A map with its number of topics. */
interface Counted {
  map: MapId
  topics: number
}

/** Maps that are hard to read, the largest first. At most `most` topics are looked at. Linear in these. */
export function* crowdedAmong(
  records: Records,
  maps: readonly Counted[],
  context: LayoutContext,
  most = Number.POSITIVE_INFINITY,
): Generator<{ map: MapId; crowding: Crowding }> {
  let left = most
  for (const { map, topics } of [...maps].sort((a, b) => b.topics - a.topics)) {
    left -= topics
    if (topics < FEW || left < 0) continue
    const crowding = crowdingOf(records, map, context)
    if (crowding.isCrowded) yield { map, crowding }
  }
}

/**
 * Maps that are hard to read, worst first, with what a careful person would split off each. At most `most` topics are looked at, in
 * the largest maps first. Linear in these, times the limit of topics a map.
 */
export function collectionReview(
  records: Records,
  maps: readonly Counted[],
  context: LayoutContext,
  ids: IdSource,
  most = Number.POSITIVE_INFINITY,
): CrowdedMap[] {
  const found: CrowdedMap[] = []
  for (const { map, crowding } of crowdedAmong(records, maps, context, most)) {
    const parts = proposeSplit(records, map, context, ids)
    const whole = splitEffect(records, map, [], context, ids).maps[0]!
    found.push({
      map,
      words: crowdingWords(crowding),
      before: splitNumbers(records, map, [], context, ids),
      after: splitNumbers(records, map, parts, context, ids),
      parts: parts.map((part) => {
        const figures = figuresOf(records, part, whole.layout)
        return { part, topics: figures.topics, share: figures.share, leaving: figures.leaving.length }
      }),
    })
  }
  return found.sort((a, b) => a.before.px - b.before.px || b.before.largest - a.before.largest)
}
