import { generateKeyBetween, generateNKeysBetween } from 'fractional-indexing'
import type { z } from 'zod'
import { refuse } from '../../changes/problem'
import { matchTrees } from '../../matching/tree-match'
import { NoteId, TopicId, WeblinkId } from '../../records/ids'
import { type AnyRecord, kinds, type RecordByKind, type RecordKind } from '../../records/kinds'
import type { NoteRecord } from '../../records/note'
import { hangs, type Place } from '../../records/place'
import { cutText, MAX_TITLE, storable } from '../../records/text'
import type { TopicRecord } from '../../records/topic'
import { isFollowable, MAX_ADDRESS } from '../../records/weblink'
import type { OutlineLink } from '../outline'
import { INDEX_PATH, IndexFile, MAP_KINDS, MapFile, type PageTopic, USUAL_TOPIC, VERSION, WHOLE_KINDS } from './form'
import { readPage, readSourcePage } from './page'

/** What a folder holds: its text files by path. */
export interface FolderSource {
  /** The text of a file; undefined where there is none. */
  text(path: string): string | undefined
}

/** A collection as it was read, as records in an order in which they can be written, and the paths of its files. */
export interface ReadFolder {
  title: string
  records: { kind: RecordKind; record: AnyRecord }[]
  files: { path: string; record: RecordByKind['file'] }[]
}

const MOST_RECORDS = 500_000

/**
 * Reads a folder as `writeFolder` writes it. Pages that were edited by hand in between are read by their text: topics that
 * are still there stay the same topics, with all that belongs to them; new ones are new; those that are gone lie in the
 * trash. Refused in words for what is no such folder, or says two things at once. What the records refer to is checked
 * when they are committed. `newId` makes ids for what is new. Linear, but for matching what was edited (`matchTrees`).
 */
export function readFolder(source: FolderSource, newId: () => string): ReadFolder {
  const index = parseFile(INDEX_PATH, source.text(INDEX_PATH), IndexFile)
  if (index.version > VERSION)
    refuse(
      'invalid',
      `This folder was written by a newer Folvet (its form is ${index.version}; this one reads ${VERSION}).`,
    )
  const reader = new FolderReader(source, newId)
  for (const kind of [...WHOLE_KINDS, 'note'] as const) reader.addAll(kind, index.records[kind], INDEX_PATH)
  const files = index.files.map(({ path, record }) => {
    if (!/^files\/[^/\\]+$/.test(path))
      refuse('invalid', `${INDEX_PATH} names a file outside of files: ${path.slice(0, 200)}`)
    return { path, record: reader.add('file', record, INDEX_PATH) }
  })
  for (const name of index.maps) reader.readMap(name)
  reader.add('collection', index.collection, INDEX_PATH)
  return { title: reader.collectionTitle, records: reader.records, files }
}

function parseFile<Schema extends z.ZodType>(path: string, text: string | undefined, schema: Schema): z.infer<Schema> {
  if (text === undefined) refuse('invalid', `${path} is missing from this folder.`)
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch {
    refuse('invalid', `${path} is no JSON.`)
  }
  const parsed = schema.safeParse(value)
  if (!parsed.success) {
    const [issue] = parsed.error.issues
    refuse('invalid', `${path} cannot be read: ${issue?.path.join('.') || 'its form'}: ${issue?.message ?? 'invalid'}`)
  }
  return parsed.data
}

class FolderReader {
  readonly records: ReadFolder['records'] = []
  collectionTitle = ''
  private readonly known = new Set<string>()

  constructor(
    private readonly source: FolderSource,
    private readonly newId: () => string,
  ) {}

  /** A record that the folder tells whole. Refused where it is not as its kind must be, or told twice. */
  add<K extends RecordKind>(kind: K, value: unknown, path: string): RecordByKind[K] {
    const parsed = kinds[kind].schema.safeParse(value)
    if (!parsed.success) {
      const [issue] = parsed.error.issues
      refuse('invalid', `${path} holds a ${kind} that cannot be read: ${issue?.path.join('.')}: ${issue?.message}`)
    }
    const record = parsed.data as RecordByKind[K]
    const key = `${kind} ${record.id}`
    if (this.known.has(key)) refuse('exists', `${path} tells the ${kind} ${record.id} a second time.`)
    if (this.known.size >= MOST_RECORDS) refuse('invalid', `A folder holds at most ${MOST_RECORDS} records.`)
    this.known.add(key)
    if (kind === 'collection') this.collectionTitle = (record as RecordByKind['collection']).title
    this.records.push({ kind, record })
    return record
  }

  addAll(kind: RecordKind, values: readonly unknown[] | undefined, path: string): void {
    for (const value of values ?? []) this.add(kind, value, path)
  }

  readMap(name: string): void {
    const path = `maps/${name}.json`
    const file = parseFile(path, this.source.text(path), MapFile)
    const page =
      this.source.text(`maps/${name}.md`) ?? refuse('invalid', `maps/${name}.md is missing from this folder.`)
    const map = this.add('map', file.map, path)
    this.addAll('note', file.records.note, path)
    const trashed = (file.records.topic ?? []).map((value) => this.add('topic', value, path))
    for (const topic of pageTopics(page, file.source, map, file.topics, trashed, this.newId)) {
      if (topic.note) this.add('note', topic.note, path)
      this.add('topic', topic.record, path)
      this.addLinks(topic, file.records.weblink ?? [], path)
    }
    for (const kind of MAP_KINDS) this.addAll(kind, file.records[kind], path)
  }

  /** Web links that were written on the page by hand and are not known yet. */
  private addLinks({ record, links }: Told, known: readonly Record<string, unknown>[], path: string): void {
    const own = known.filter(({ topic }) => topic === record.id)
    const fresh = links.filter(
      ({ address }) =>
        isFollowable(address) && address.length <= MAX_ADDRESS && !own.some(({ url }) => url === address),
    )
    let last =
      own
        .map(({ rank }) => String(rank))
        .sort()
        .at(-1) ?? null
    for (const { address, title } of fresh) {
      last = generateKeyBetween(last, null)
      const id = WeblinkId.parse(this.newId())
      const link = { id, topic: record.id, url: address, title: cutText(title, MAX_TITLE), rank: last, trashed: false }
      this.add('weblink', link, path)
    }
  }
}

interface Told {
  /** A topic as far as it is known; whoever takes it over checks it. */
  record: { id: TopicId } & Record<string, unknown>
  note: NoteRecord | null
  /** Links that were written on the page by hand. */
  links: readonly OutlineLink[]
}

/** The topics of a page, those that it no longer tells in the trash, parents before their children. */
function pageTopics(
  page: string,
  source: string | undefined,
  map: RecordByKind['map'],
  base: readonly PageTopic[],
  trashed: readonly TopicRecord[],
  newId: () => string,
): Told[] {
  const lines = source ? readSourcePage({ path: source, text: storable(page) }) : readPage(storable(page), map.title)
  const match = matchTrees(
    base.map(({ level, says }) => ({ level, text: says })),
    lines,
  )
  // The root stays the root, whatever it is called.
  if (match[0] !== 0) for (let i = 0; i < match.length; i++) if (match[i] === 0) match[i] = -1
  match[0] = 0
  const ids = lines.map((_, i) => base[match[i]!]?.id ?? TopicId.parse(newId()))
  const children = new Map<number, number[]>()
  const parents = new Int32Array(lines.length).fill(-1)
  const open: number[] = []
  lines.forEach(({ level }, i) => {
    open.length = level
    const parent = open[level - 1] ?? -1
    open[level] = i
    parents[i] = parent
    const siblings = children.get(parent)
    if (siblings) siblings.push(i)
    else children.set(parent, [i])
  })
  const ranks = new Map<number, string>()
  for (const [parent, below] of children)
    if (parent >= 0) rankChildren(below, (i) => base[match[i]!], ids[parent]!, trashed, ranks)

  const told = lines.map((line, i): Told => {
    const known = base[match[i]!]
    const isAsWritten = known?.says === line.text
    const text = isAsWritten ? (known.exact ?? line.text) : line.text
    const exact = known?.note?.exact
    const words = exact && exact.asRead === line.note ? exact.text : line.note
    const note = known?.note || words !== '' ? noteOf(known?.note?.id ?? NoteId.parse(newId()), words) : null
    const id = ids[i]!
    const carried = note?.id ?? known?.fields?.note ?? null
    const record = { ...USUAL_TOPIC, ...known?.fields, id, place: placeOf(i, known), text, note: carried }
    return { record, note, links: isAsWritten ? [] : line.links }
  })
  const kept = new Set<TopicId>(ids)
  return [...told, ...goneTopics(base, kept, map, lastRanks(ids, parents, ranks, trashed))]

  function placeOf(i: number, known: PageTopic | undefined): Place {
    if (i === 0) return { kind: 'root', map: map.id }
    const parent = parents[i]!
    if (known?.isLoose && known.point && parent === 0) return { kind: 'loose', map: map.id, ...known.point }
    const hanging = { map: map.id, parent: ids[parent]!, rank: ranks.get(i)!, side: known?.side ?? null }
    return known?.point && !known.isLoose
      ? { kind: 'by hand', ...hanging, ...known.point }
      : { kind: 'arranged', ...hanging }
  }
}

const noteOf = (id: NoteId, text: string): NoteRecord => ({ id, text, joinedInto: null, trashed: false })

const rankIn = (topic: TopicRecord, parent: TopicId): string | null =>
  hangs(topic.place) && topic.place.parent === parent ? topic.place.rank : null

/**
 * Ranks for the children of a topic as they stand on the page: those that they had, where these are still in order; else new
 * ones behind those of topics in the trash, so that none is taken twice.
 */
function rankChildren(
  below: readonly number[],
  known: (i: number) => PageTopic | undefined,
  parent: TopicId,
  trashed: readonly TopicRecord[],
  ranks: Map<number, string>,
): void {
  const hanging = below.filter((i) => !known(i)?.isLoose)
  const had = hanging.map((i) => known(i)?.rank)
  const inTrash = trashed.flatMap((topic) => rankIn(topic, parent) ?? [])
  const keeps = had.every((rank, i) => rank !== undefined && (i === 0 || had[i - 1]! < rank) && !inTrash.includes(rank))
  const made = keeps ? had : generateNKeysBetween(inTrash.sort().at(-1) ?? null, null, hanging.length)
  hanging.forEach((i, n) => {
    ranks.set(i, made[n]!)
  })
}

/** The last rank below each topic, those in the trash included. */
function lastRanks(
  ids: readonly TopicId[],
  parents: Int32Array,
  ranks: ReadonlyMap<number, string>,
  trashed: readonly TopicRecord[],
): Map<TopicId, string> {
  const last = new Map<TopicId, string>()
  const see = (parent: TopicId, rank: string) => {
    if (rank > (last.get(parent) ?? '')) last.set(parent, rank)
  }
  for (const [i, rank] of ranks) see(ids[parents[i]!]!, rank)
  for (const { place } of trashed) if (hangs(place)) see(place.parent, place.rank)
  return last
}

/** Topics that the page no longer tells: in the trash, where they hung. Their notes went with the page, but for exact ones. */
function goneTopics(
  base: readonly PageTopic[],
  kept: ReadonlySet<TopicId>,
  map: RecordByKind['map'],
  last: Map<TopicId, string>,
): Told[] {
  const told: Told[] = []
  const open: TopicId[] = []
  for (const topic of base) {
    const { id, level } = topic
    open.length = level
    const parent = open[level - 1]
    open[level] = id
    if (kept.has(id) || !parent) continue
    const rank = generateKeyBetween(last.get(parent) ?? null, null)
    last.set(parent, rank)
    const place: Place = { kind: 'arranged', map: map.id, parent, rank, side: topic.side ?? null }
    const note = topic.note ? noteOf(topic.note.id, topic.note.exact?.text ?? '') : null
    const text = topic.exact ?? topic.says
    const carried = note?.id ?? topic.fields?.note ?? null
    // Of a branch that is gone only the head lies in the trash.
    const record = { ...USUAL_TOPIC, ...topic.fields, id, place, text, note: carried, trashed: kept.has(parent) }
    told.push({ record, note, links: [] })
  }
  return told
}
