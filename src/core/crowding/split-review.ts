import type { SplitPart } from '../commands/split-off'
import type { MapLayout } from '../layout/boxes'
import type { CrosslinkRecord } from '../records/crosslink'
import type { TopicId } from '../records/ids'
import { isRoot, parentOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { branch } from '../tree/walk'
import { mapName, rowPart } from './propose-split'

/** A part that is proposed, or that a person proposes, with the name of its map, and whether it is to be split off. */
export interface ReviewRow {
  part: SplitPart & { name: string }
  isTaken: boolean
}

/** What tells rows from one another. */
export const keyOfPart = (part: SplitPart): string => ('row' in part ? part.row.join(' ') : part.topic)

export const rowsOfParts = (parts: readonly SplitPart[]): ReviewRow[] =>
  parts.map((part) => ({ part: { ...part, name: part.name ?? '' }, isTaken: true }))

/** The topics that would leave the map with a part, in order. O(their number). */
export function topicsOfPart(records: Records, part: SplitPart): TopicRecord[] {
  const heads = 'row' in part ? part.row.map((id) => records.need('topic', id)) : records.children(part.topic)
  return heads.flatMap((head) => [...branch(records, head)])
}

/** Of a part by itself, before anything is split off. */
export interface PartFigures {
  /** On its map, the new root among them. */
  topics: number
  /** Of the height of all topics of the map, between 0 and 1. */
  share: number
  /** Cross-links between what would leave and what would stay. */
  leaving: readonly CrosslinkRecord[]
}

/** Linear in the topics of the map. */
export function figuresOf(records: Records, part: SplitPart, layout: MapLayout): PartFigures {
  const topics = topicsOfPart(records, part)
  const inside = new Set<string>(topics.map(({ id }) => id))
  let [all, own] = [0, 0]
  for (const { topic, height } of layout.boxes) {
    all += height
    if (inside.has(topic.id)) own += height
  }
  const onMap = new Set<string>(layout.boxes.map(({ topic }) => topic.id))
  const leaving = [...records.all('crosslink')].filter(
    ({ trashed, from, to }) =>
      !trashed && to.kind === 'topic' && onMap.has(from) && onMap.has(to.id) && inside.has(from) !== inside.has(to.id),
  )
  return { topics: topics.length + 1, share: all === 0 ? 0 : own / all, leaving }
}

/** Whether what lies below a topic can become a map. */
export const canSplit = (records: Records, topic: TopicRecord): boolean =>
  !isRoot(topic) && !topic.opensMap && records.children(topic.id).length > 0

const rowAt = (topic: TopicRecord): ReviewRow => ({
  part: { topic: topic.id, name: mapName(topic.text) },
  isTaken: true,
})

/** Proposes a branch, or takes the proposal back where it was made already. Branches that cannot be split off are left. */
export function toggleBranch(records: Records, rows: readonly ReviewRow[], topic: TopicId): ReviewRow[] {
  const known = rows.find(({ part }) => 'topic' in part && part.topic === topic)
  if (known) return rows.map((row) => (row === known ? { ...row, isTaken: !row.isTaken } : row))
  const record = records.get('topic', topic)
  return record && canSplit(records, record) ? [...rows, rowAt(record)] : [...rows]
}

/** A topic and those above it, from the root of the map down to it. */
const downTo = (records: Records, topic: TopicRecord): TopicRecord[] => {
  const above = records.get('topic', parentOf(topic))
  return above ? [...downTo(records, above), topic] : [topic]
}

/**
 * Proposes the branches from one topic to another, drawn over, as one map: the siblings on which both hang, and those between
 * them. Rows that share branches with it give way. Left as it was where one hangs on the other, or they share no branch.
 */
export function proposeRow(records: Records, rows: readonly ReviewRow[], from: TopicId, to: TopicId): ReviewRow[] {
  const [one, other] = [from, to].map((id) => downTo(records, records.need('topic', id))) as [
    TopicRecord[],
    TopicRecord[],
  ]
  const level = one.findIndex(({ id }, i) => id !== other[i]?.id)
  const parent = one[level - 1]
  if (!parent || !other[level]) return [...rows]
  const siblings = records.children(parent.id)
  const ends = [one[level], other[level]].map((end) => siblings.findIndex(({ id }) => id === end!.id))
  const row = siblings.slice(Math.min(...ends), Math.max(...ends) + 1)
  const drawn = new Set<TopicId>(row.map(({ id }) => id))
  const others = rows.filter(({ part }) => !('row' in part) || !part.row.some((id) => drawn.has(id)))
  return [...others, { part: rowPart(row), isTaken: true }]
}

/** The topics at which a part would be cut one level higher or lower; none where there is none. */
export function movedCut(records: Records, { part }: ReviewRow, way: 'up' | 'down'): TopicRecord[] {
  if ('row' in part) return []
  const found =
    way === 'up' ? [records.get('topic', parentOf(records.need('topic', part.topic)))] : records.children(part.topic)
  return found.flatMap((topic) => (topic && canSplit(records, topic) ? topic : []))
}

/** Moves the cut of a row up to the topic above, or down to those below. Rows for the same topics are not made twice. */
export function moveCut(records: Records, rows: readonly ReviewRow[], row: ReviewRow, way: 'up' | 'down'): ReviewRow[] {
  const moved = movedCut(records, row, way).map(rowAt)
  if (moved.length === 0) return [...rows]
  const others = new Set(rows.filter((other) => other !== row).map(({ part }) => keyOfPart(part)))
  return rows.flatMap((other) => (other === row ? moved.filter(({ part }) => !others.has(keyOfPart(part))) : other))
}
