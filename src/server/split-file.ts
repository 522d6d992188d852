import { proposeSplit, splitEffect } from '../core/crowding/propose-split'
import { ALL_FONTS } from '../core/text/all-fonts'
import { mapOfFile, NEW_IDS, pathTo } from './page-file'

/** One of the maps that a page would become. */
interface Piece {
  /** The texts on the way from the root of the page to where the map begins; of a row of siblings, to the first of them. */
  root: string[]
  name: string
  topics: number
  /** Its smallest text when it is fitted into a view of 1000 × 640 px, in px. */
  fittedPx: number
}

/** What splitting a page into maps would make of it: the map that stays first. */
export interface PageSplit {
  pieces: Piece[]
  /** Links that would lead from map to map. */
  cut: number
}

/** Proposes how to split an indented text or a CommonMark page. Throws where it cannot be read. */
export function splitFile(path: string): PageSplit {
  const { records, map } = mapOfFile(path)
  const context = { fonts: ALL_FONTS, countTopics: () => 0 }
  const parts = proposeSplit(records, map, context, NEW_IDS)
  const { maps, between } = splitEffect(records, map, parts, context, NEW_IDS)
  const heads = [records.root(map)!.id, ...parts.map((part) => ('row' in part ? part.row[0]! : part.topic))]
  return {
    pieces: maps.map(({ name, topics, px }, i) => ({
      root: pathTo(records, records.need('topic', heads[i]!)),
      name,
      topics,
      fittedPx: Math.round(px * 10) / 10,
    })),
    cut: between,
  }
}
