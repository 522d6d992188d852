import type { IdSource } from '../commands/command'
import { NewChange } from '../commands/command'
import { type SplitPart, type SplitRow, splitOffAll } from '../commands/split-off'
import type { LayoutContext } from '../layout/boxes'
import type { MapId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { topicsInOrder } from '../tree/walk'
import { divideTied } from './divide-tied'
import { Division } from './division'
import { isLegible, type Judged, judge } from './legibility'
import { BEARABLE, type Bearable, type Limits, limitsOf } from './piece-cost'
import { childrenOf, mapWithin, type PlacedTree, type TopicTree, topicTreeOf } from './topic-tree'

/** One of the maps that a map is, or would be after branches are split off from it. */
export interface MapAfter extends Judged {
  map: MapId
  name: string
  /** The topic that would be its doorway; null for the map that stays. */
  doorway: TopicId | null
  /** Topics on it, its root among them. */
  topics: number
}

/** What splitting off branches would make of a map. */
export interface SplitEffect {
  /** The map that stays, then the others in the order of the branches. */
  maps: readonly MapAfter[]
  /** Cross-links between two of these maps. */
  between: number
  /** The records as they would be. */
  records: Records
}

/**
 * What a map would become, found by really splitting it on a copy. Without parts it is the map as it is now. Throws a
 * Refusal where a part cannot be split off. Maps of the same topics as before are taken from `known`. Linear in the topics
 * of the map.
 */
export function splitEffect(
  records: Records,
  map: MapId,
  parts: readonly SplitPart[],
  context: LayoutContext,
  ids: IdSource,
  known = new Map<string, Judged>(),
): SplitEffect {
  const change = new NewChange(records, ids)
  const made = parts.length > 0 ? splitOffAll.within(change, { parts }).doorways : []
  const after = change.records
  const doorways = [null, ...made]
  const maps = doorways.map((doorway) => (doorway ? after.need('topic', doorway).opensMap! : map))
  const topicsOf = new Map(maps.map((id) => [id, [...topicsInOrder(after, id)].map((topic) => topic.id)]))
  const counts = new Map<string, number>([...topicsOf].map(([id, topics]) => [id, topics.length]))
  const mapOf = new Map<TopicId, MapId>()
  for (const [id, topics] of topicsOf) for (const topic of topics) mapOf.set(topic, id)
  const judged = (id: MapId, topics: readonly TopicId[]): Judged => {
    // The root of a new map has a new id each time.
    const key = (id === map ? topics : topics.slice(1)).join(' ')
    const before = known.get(key) ?? judge(after, id, inNew)
    known.set(key, before)
    return before
  }
  const inNew: LayoutContext = {
    ...context,
    countTopics: (id) => counts.get(id) ?? context.countTopics(id),
  }
  let between = 0
  for (const { trashed, from, to } of after.all('crosslink')) {
    if (trashed || to.kind !== 'topic') continue
    const [here, there] = [mapOf.get(from), mapOf.get(to.id)]
    if (here && there && here !== there) between++
  }
  return {
    maps: maps.map((id, i) => ({
      map: id,
      name: after.need('map', id).title,
      doorway: doorways[i]!,
      topics: topicsOf.get(id)!.length,
      ...judged(id, topicsOf.get(id)!),
    })),
    between,
    records: after,
  }
}

/** How often maps that cannot be read are divided further. */
const ROUNDS = 4

/**
 * What a careful person would split off a map, in reading order: nothing where it can be read as it is. First by numbers of
 * topics (see `divideTied`); then a map whose text is still too small when fitted is divided by the same rule into as much
 * as can be read; where no branch is left to be cut, rows of siblings become maps together. Linear in the topics, times
 * the limit of topics a map.
 */
export function proposeSplit(records: Records, map: MapId, context: LayoutContext, ids: IdSource): SplitPart[] {
  const whole = topicTreeOf(records, map)
  if (!whole) return []
  const limits = limitsOf(records)
  if (whole.topics.length <= limits.limit && isLegible(judge(records, map, context), limits)) return []
  forbidSmall(whole.tree)
  const split: Split = { cuts: new Set(divideTied(whole.tree, limits)), rows: [] }
  const nodes = new Map(whole.topics.map(({ id }, node) => [id, node]))
  const known = new Map<string, Judged>()
  for (let round = 0; round < ROUNDS; round++) {
    const parts = namedParts(whole, split)
    const { maps } = splitEffect(records, map, parts, context, ids, known)
    const before = split.cuts.size + split.rows.length
    maps.forEach((piece, i) => {
      const part = parts[i - 1]
      if (isLegible(piece, limits) && piece.topics <= limits.limit) return
      if (part && 'row' in part) halveRow(whole.tree, split, nodes.get(part.row[0]!)!)
      else divideFurther(whole, split, part ? nodes.get(part.topic)! : 0, piece, limits)
    })
    if (split.cuts.size + split.rows.length === before) break
  }
  for (const node of noMaps(whole.tree, split.cuts)) split.cuts.delete(node)
  return withoutNeedless(whole, split, (parts) => splitEffect(records, map, parts, context, ids, known), limits)
}

/** How often it is tried whether small maps can stay where they were; usually once or twice. */
const TRIES = 6

/**
 * What is split off, without maps of a few topics that can stay where they were: where the map around them is no harder to
 * read with them. In each round one for each map around.
 */
function withoutNeedless(
  whole: PlacedTree,
  split: Split,
  effectOf: (parts: readonly SplitPart[]) => SplitEffect,
  limits: Limits,
): SplitPart[] {
  const isHard = (piece: MapAfter | undefined) =>
    piece !== undefined && (!isLegible(piece, limits) || piece.topics > limits.limit)
  const needed = new Set<string>()
  let parts = namedParts(whole, split)
  for (let round = 0; round < TRIES; round++) {
    const { maps, records } = effectOf(parts)
    /** Parts by the maps around them, each by the part that made it. */
    const tried = new Map<string | null, SplitPart>()
    maps.slice(1).forEach(({ topics, doorway }, i) => {
      const around = maps.findIndex(({ map }) => map === records.need('topic', doorway).place.map)
      const key = around > 0 ? headOf(parts[around - 1]!) : null
      if (topics < limits.least && !needed.has(headOf(parts[i]!)) && !tried.has(key)) tried.set(key, parts[i]!)
    })
    if (tried.size === 0) break
    const left = parts.filter((part) => ![...tried.values()].includes(part))
    const { maps: after } = effectOf(left)
    for (const [key, part] of tried) {
      const pieceIn = (of: readonly SplitPart[], pieces: readonly MapAfter[]) =>
        pieces[key === null ? 0 : of.findIndex((other) => headOf(other) === key) + 1]
      if (isHard(pieceIn(left, after)) && !isHard(pieceIn(parts, maps))) needed.add(headOf(part))
    }
    parts = parts.filter((part) => needed.has(headOf(part)) || left.includes(part))
  }
  return parts
}

/** What tells parts of one map from one another. */
const headOf = (part: SplitPart): string => ('row' in part ? `row from ${part.row[0]}` : part.topic)

/** So few topics are no map, however much room they take. */
const NO_MAP = 4

/** Cuts below which too little is left, the deepest first, each as if those before were taken back. */
function noMaps(tree: TopicTree, cuts: ReadonlySet<number>): number[] {
  const division = new Division(tree, BEARABLE, cuts)
  return [...cuts]
    .sort((a, b) => b - a)
    .filter((node) => {
      const isNone = division.sizeOf(node) < NO_MAP
      if (isNone) division.toggle(node)
      return isNone
    })
}

/** The nodes below which a map begins, and the rows of siblings that become maps. */
interface Split {
  cuts: Set<number>
  rows: number[][]
}

/** A map of fewer topics is not worth a door. */
function forbidSmall(tree: TopicTree): void {
  for (const node of tree.parent.keys()) if (tree.end[node]! - node < BEARABLE.least) tree.cuttable[node] = 0
}

/** How full of what can be read a map is made. */
const FILLED = 0.85

/**
 * Divides a map that cannot be read once more: by the room that its topics take, into as much of it as can be read, where
 * branches can be cut; else its widest row of siblings into maps of neighbours, where it is wide enough for two.
 */
function divideFurther(whole: PlacedTree, split: Split, head: number, piece: MapAfter, limits: Limits): void {
  const { tree, topics, nodes } = mapWithin(whole, head, (node) => split.cuts.has(node))
  let { target, limit }: Bearable = limits
  if (!isLegible(piece, limits)) {
    const { boxes } = piece.layout
    const lines = new Map(boxes.map(({ topic, height, style }) => [topic.id, Math.round(height / style.lineHeight)]))
    for (const [node, { id }] of topics.entries()) tree.weight[node] = Math.max(1, lines.get(id) ?? 1)
    forbidSmall(tree)
    const room = tree.weight.reduce((sum, each) => sum + each, 0)
    limit = Math.floor((room * piece.px) / limits.px)
    target = Math.floor(limit * FILLED)
    const found = divideTied(tree, { target, limit, least: 0 })
    for (const node of found) split.cuts.add(nodes[node]!)
    if (found.length > 0) return
  }
  const taken = new Set(split.rows.flat())
  split.rows.push(
    ...widestRow(tree, (node) => taken.has(nodes[node]!), target).map((row) => row.map((node) => nodes[node]!)),
  )
}

/** Makes two rows of one, where each is then worth a door. */
function halveRow({ end }: TopicTree, split: Split, first: number): void {
  const row = split.rows.find(([node]) => node === first)!
  const halves = runsOf(row, 2, (node) => end[node]! - node)
  const topicsIn = (half: readonly number[]) => half.reduce((sum, node) => sum + end[node]! - node, 1)
  if (halves.length < 2 || halves.some((half) => half.length < 2 || topicsIn(half) < BEARABLE.least)) return
  split.rows.splice(split.rows.indexOf(row), 1, ...halves)
}

/** The heaviest row of siblings that can be two maps or more, as runs of neighbours of like weight; none where there is none. */
function widestRow(tree: TopicTree, isTaken: (node: number) => boolean, target: number): number[][] {
  const least = BEARABLE.least - 1
  let [widest, heaviest]: [number[], number] = [[], 0]
  for (const node of tree.parent.keys()) {
    const row = childrenOf(tree, node).filter((child) => tree.hangs[child])
    if (row.length < 2 * least || row.some(isTaken)) continue
    const weight = row.reduce((sum, child) => sum + branchWeight(tree, child), 0)
    if (weight > heaviest) [widest, heaviest] = [row, weight]
  }
  const count = Math.min(Math.floor(widest.length / least), Math.max(2, Math.ceil(heaviest / target)))
  return runsOf(widest, count, (node) => branchWeight(tree, node))
}

function branchWeight({ weight, end }: TopicTree, node: number): number {
  let sum = 0
  for (let at = node; at < end[node]!; at++) sum += weight[at]!
  return sum
}

/** A row in so many runs of like weight. */
function runsOf(row: readonly number[], count: number, weightOf: (node: number) => number): number[][] {
  const total = row.reduce((sum, node) => sum + weightOf(node), 0)
  const runs: number[][] = Array.from({ length: Math.max(count, 0) }, () => [])
  let before = 0
  for (const node of row) {
    const middle = before + weightOf(node) / 2
    runs[Math.min(count - 1, Math.floor((middle / total) * count))]?.push(node)
    before += weightOf(node)
  }
  return runs.filter((run) => run.length > 0)
}

const LONGEST_NAME = 60
const LONGEST_END = 28

/** What is split off, in reading order, with names that tell them apart. */
function namedParts({ tree, topics }: PlacedTree, { cuts, rows }: Split): SplitPart[] {
  const parts = [
    ...[...cuts].map((node) => ({ node, part: { topic: topics[node]!.id, name: mapName(topics[node]!.text) } })),
    ...rows.map((row) => ({ node: row[0]!, part: rowPart(row.map((node) => topics[node]!)) })),
  ].sort((a, b) => a.node - b.node)
  const times = new Map<string, number>()
  for (const { part } of parts) times.set(part.name, (times.get(part.name) ?? 0) + 1)
  const given = new Map<string, number>()
  return parts.map(({ node, part }) => {
    const above = topics[tree.parent[node]!]
    const name = times.get(part.name) === 1 || !above ? part.name : `${mapName(above.text)}: ${part.name}`
    const before = given.get(name) ?? 0
    given.set(name, before + 1)
    return { ...part, name: before === 0 ? name : `${name} (${before + 1})` }
  })
}

/** Neighbours under the names of the first and the last. */
export function rowPart(row: readonly TopicRecord[]): SplitRow & { name: string } {
  const [first, last] = [row[0]!, row.at(-1)!].map(({ text }) => mapName(text, LONGEST_END))
  return { row: row.map(({ id }) => id), name: `${first} to ${last}` }
}

/** The name that a person would give to a map of a topic: its first line, without what points to what follows, cut after a word. */
export function mapName(text: string, longest = LONGEST_NAME): string {
  const line = text
    .trim()
    .split('\n', 1)[0]!
    .replace(/[\s:;,.…]+$/u, '')
  if (line.length <= longest) return line || 'Untitled'
  const cut = line.slice(0, longest).replace(/\s+\S*$/u, '')
  return `${cut.toWellFormed()} …`
}
