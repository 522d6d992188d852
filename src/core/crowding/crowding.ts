import type { LayoutContext } from '../layout/boxes'
import { crosslinkIsQuiet } from '../network/crosslinks'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { branch } from '../tree/walk'
import { isLegible, judge } from './legibility'
import { limitsOf } from './piece-cost'

/** How much a branch does to make its map hard to read. */
interface BranchCrowding {
  head: TopicRecord
  /** Of the room that the map needs, between 0 and 1. */
  share: number
  topics: number
  levels: number
  /** Cross-links drawn as lines from the branch to the rest of the map. */
  linesAcross: number
}

/** How hard a map is to read, all of it unfolded. */
export interface Crowding {
  topics: number
  /** Its smallest text when it is fitted into the view in which maps are judged, in px. */
  px: number
  /** Whether that is smaller than can be read. */
  isTooSmall: boolean
  isCrowded: boolean
  /** Of the first level and the loose branches, what crowds most first. */
  branches: readonly BranchCrowding[]
}

/** A line across takes as much attention as this much text, in px of height. */
const LINE_ACROSS = 20

/** Measures a map. A branch counts by the height of its topics, which holds their number and their words, and by the lines that leave it. Linear in its topics and links. */
export function crowdingOf(records: Records, map: string, context: LayoutContext): Crowding {
  const { layout, px } = judge(records, map, context)
  const heights = new Map<string, number>(layout.boxes.map(({ topic, height }) => [topic.id, height]))
  const root = records.root(map)
  const heads = root ? [...records.children(root.id), ...records.looseBranches(map)] : []
  const headOf = new Map<string, TopicRecord>()
  const counted = heads.map((head) => {
    const levels = new Map<string, number>()
    let [topics, height, deepest] = [0, 0, 0]
    for (const topic of branch(records, head)) {
      headOf.set(topic.id, head)
      const { place } = topic
      const level = topic === head || !('parent' in place) ? 1 : (levels.get(place.parent) ?? 0) + 1
      levels.set(topic.id, level)
      deepest = Math.max(deepest, level)
      height += heights.get(topic.id) ?? 0
      topics++
    }
    return { head, topics, levels: deepest, height, linesAcross: 0 }
  })
  const byHead = new Map(counted.map((each) => [each.head, each]))
  for (const link of records.all('crosslink')) {
    if (link.trashed || link.drawn !== 'line' || link.to.kind !== 'topic' || crosslinkIsQuiet(records, link)) continue
    const [from, to] = [headOf.get(link.from), headOf.get(link.to.id)]
    if (from && to && from !== to) for (const head of [from, to]) byHead.get(head)!.linesAcross++
  }
  const roomOf = (each: (typeof counted)[number]) => each.height + each.linesAcross * LINE_ACROSS
  const room = counted.reduce((sum, each) => sum + roomOf(each), 0)
  const topics = layout.boxes.length
  const limits = limitsOf(records)
  return {
    topics,
    px,
    isTooSmall: !isLegible({ px }, limits),
    isCrowded: !isLegible({ px }, limits) || topics > limits.limit,
    branches: counted
      .map(({ height, ...each }) => ({ ...each, share: room === 0 ? 0 : roomOf({ height, ...each }) / room }))
      .sort((a, b) => b.share - a.share),
  }
}

const NUMBERS = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
]

/** A count in words as far as people write it so. */
const inWords = (count: number, one: string, many: string) => `${NUMBERS[count] ?? count} ${count === 1 ? one : many}`

/** Why a map is hard to read, in a sentence without its end. */
export function crowdingWords({ topics, px, isTooSmall, branches }: Crowding): string {
  const [worst] = branches
  const first = isTooSmall
    ? `text falls to ${Math.max(1, Math.floor(px))} px when fitted`
    : `${topics} topics on one map are more than can be overlooked`
  if (!worst) return first
  const parts = [
    worst.topics === 1 ? '1 topic' : `${worst.topics} topics`,
    inWords(worst.levels, 'level', 'levels'),
    ...(worst.linesAcross > 0 ? [inWords(worst.linesAcross, 'line across', 'lines across')] : []),
  ]
  return `${first}; ${worst.head.text.split('\n', 1)[0] || 'Untitled'} causes ${Math.round(worst.share * 100)} % of it: ${parts.join(', ')}`
}
