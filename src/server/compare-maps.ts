import type { MatchClass } from '../core/matching/match-maps'
import { matchMaps } from '../core/matching/match-maps'
import { textTreeOf } from '../core/matching/text-tree'
import { whySame } from '../core/matching/why'
import { english } from './lexicon/lexicon'
import { type HeldMap, pathTo } from './page-file'

/** Two topics of two maps that say the same, or likely do; by the texts on the way to them. */
export interface ComparedPair {
  a: string[]
  b: string[]
  class: MatchClass
  /** Between 0 and 1. */
  sure: number
  why: string
}

/** Compares two maps and changes nothing. Topics that are in no pair have none. In reading order of the first. */
export function compareMaps(first: HeldMap, second: HeldMap): ComparedPair[] {
  const [a, b] = [textTreeOf(first.records, first.map), textTreeOf(second.records, second.map)]
  const lexicon = english()
  return matchMaps(a.tree, b.tree, lexicon).map((match) => ({
    a: pathTo(first.records, a.topics[match.a]!),
    b: pathTo(second.records, b.topics[match.b]!),
    class: match.class,
    sure: Math.round((match.class === 'same' ? match.sameSure : match.sure) * 100) / 100,
    why: whySame(match, a.tree, b.tree, lexicon),
  }))
}
