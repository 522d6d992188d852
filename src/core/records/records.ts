import type { CrosslinkRecord } from './crosslink'
import type { Reference } from './kind'
import { type AnyRecord, kinds, RECORD_KINDS, type RecordByKind, type RecordKind, referencesTo } from './kinds'
import type { MapRecord } from './map'
import { hangs, parentOf } from './place'
import { Ranks } from './ranks'
import { type End, eachEnd } from './reference-path'
import type { TopicRecord } from './topic'

/** Ids by what they are looked up with: most keys have one, and a set of one would be large. */
type Index = Map<string, string | Set<string>>

/** The name of the index over one reference of a kind. */
const indexName = (kind: RecordKind, { path }: Reference): string => `${kind}.${path}`
/** What an index is asked with: an id; where a reference leads to several kinds, with the kind before it. */
const keyOf = ({ to }: Reference, { kind, id }: End): string => (to === null ? `${kind} ${id}` : id)

const HEADS = 'topic heads'
const CHILDREN = 'topic.place.parent'

/** The indexed references of each kind, with the names of their indexes. */
const indexed = new Map(
  RECORD_KINDS.map((kind) => [
    kind,
    kinds[kind].references.map((reference) => ({ reference, name: indexName(kind, reference) })),
  ]),
)

/** References of what is drawn between two topics: a change of one of them can be seen at the other. */
const isBetweenTopics = (kind: RecordKind): boolean =>
  kinds[kind].references.filter(({ seen }) => seen === 'there').length > 1 && kind !== 'topic'

const byCodeUnit = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0)
const byId = (a: { id: string }, b: { id: string }) => byCodeUnit(a.id, b.id)
const byRank = (a: { rank: string; id: string }, b: { rank: string; id: string }) =>
  byCodeUnit(a.rank, b.rank) || byId(a, b)
const rankOf = ({ place }: TopicRecord): string => (hangs(place) ? place.rank : '')
const byPlace = (a: TopicRecord, b: TopicRecord) => byCodeUnit(rankOf(a), rankOf(b)) || byId(a, b)

const NONE: readonly TopicRecord[] = []

export function ranksOf(children: Iterable<TopicRecord>): Ranks {
  const ranks = new Ranks()
  for (const child of children) ranks.set(rankOf(child), child.id)
  return ranks
}

/**
 * The records of a collection, or the part of them that somebody holds, with the lookups that commands, layout and
 * the site need. Records themselves are immutable values; the set of them is changed only through `put` and `remove`,
 * which cost O(1) for each reference. Children are sorted when they are next asked for. What can be looked up backwards
 * is what the kinds declare as references.
 */
export class Records {
  protected readonly tables = new Map<RecordKind, Map<string, AnyRecord>>()
  private readonly indexes = new Map<string, Index>()
  private readonly sortedChildren = new Map<string, readonly TopicRecord[]>()
  /** The same without what lies in the trash, until something changes there. */
  private readonly shownChildren = new Map<string, readonly TopicRecord[]>()
  private readonly ranks = new Map<string, Ranks>()
  private readonly stamps = new Map<string, number>()
  private readonly unstamped = new Set<string>()
  private lastStamp = 0
  /** Whether anybody keeps what was computed: changes before that need not be noted. */
  private isWatched = false
  /** Grows with everything that is put or removed. */
  revision = 0

  /** Undefined when there is no such record here. */
  get<K extends RecordKind>(kind: K, id: string | null): RecordByKind[K] | undefined {
    return id === null ? undefined : (this.tables.get(kind)?.get(id) as RecordByKind[K] | undefined)
  }

  /** Like `get`, for ids that must be here. Throws a RangeError otherwise. */
  need<K extends RecordKind>(kind: K, id: string | null): RecordByKind[K] {
    const record = this.get(kind, id)
    if (record === undefined) throw new RangeError(`There is no ${kind} ${id} here.`)
    return record
  }

  /** All records of a kind, trashed ones included, in no promised order. */
  *all<K extends RecordKind>(kind: K): Generator<RecordByKind[K]> {
    for (const record of this.tables.get(kind)?.values() ?? []) yield record as RecordByKind[K]
  }

  /** How many records of a kind there are, trashed ones included. */
  count(kind: RecordKind): number {
    return this.tables.get(kind)?.size ?? 0
  }

  put<K extends RecordKind>(kind: K, record: RecordByKind[K]): void {
    let table = this.tables.get(kind)
    if (!table) this.tables.set(kind, (table = new Map()))
    const known = table.get(record.id) as RecordByKind[K] | undefined
    if (known) this.forget(kind, known)
    this.revision++
    table.set(record.id, record)
    this.reindex(kind, record, true)
    this.mark(kind, record)
  }

  remove<K extends RecordKind>(kind: K, id: string): void {
    const known = this.tables.get(kind)?.get(id) as RecordByKind[K] | undefined
    if (!known) return
    this.revision++
    this.forget(kind, known)
    this.tables.get(kind)?.delete(id)
  }

  private forget<K extends RecordKind>(kind: K, known: RecordByKind[K]): void {
    this.mark(kind, known)
    this.reindex(kind, known, false)
  }

  private reindex(kind: RecordKind, record: AnyRecord, present: boolean): void {
    for (const { reference, name } of indexed.get(kind)!)
      eachEnd(record, reference, (end) => this.enter(name, keyOf(reference, end), record.id, present))
    if (kind === 'topic') this.reindexPlace(record as TopicRecord, present)
  }

  private reindexPlace({ id, place }: TopicRecord, present: boolean): void {
    if (!hangs(place)) {
      this.enter(HEADS, place.map, id, present)
      return
    }
    this.forgetOrder(place.parent)
    const ranks = this.ranks.get(place.parent)
    if (present) ranks?.set(place.rank, id)
    else ranks?.delete(place.rank, id)
  }

  /** The children of a topic are sorted anew when they are next asked for. */
  protected forgetOrder(parent: string): void {
    this.sortedChildren.delete(parent)
    this.shownChildren.delete(parent)
  }

  private enter(name: string, key: string, id: string, present: boolean): void {
    let index = this.indexes.get(name)
    if (!index) this.indexes.set(name, (index = new Map()))
    const ids = index.get(key)
    if (typeof ids === 'object') {
      if (present) ids.add(id)
      else ids.delete(id)
    } else if (present) index.set(key, ids === undefined || ids === id ? id : new Set([ids, id]))
    else if (ids === id) index.delete(key)
  }

  /** The ids that an index holds for a key. */
  idsIn(_kind: RecordKind, name: string, key: string): Iterable<string> {
    const ids = this.indexes.get(name)?.get(key)
    return typeof ids === 'string' ? [ids] : (ids ?? [])
  }

  private *lookUp<K extends RecordKind>(kind: K, name: string, key: string): Generator<RecordByKind[K]> {
    for (const id of this.idsIn(kind, name, key)) yield this.need(kind, id)
  }

  /** All records, trashed ones included, of which this reference leads to an end. In no promised order. */
  *referring<K extends RecordKind>(kind: K, reference: Reference, end: End): Generator<RecordByKind[K]> {
    yield* this.lookUp(kind, indexName(kind, reference), keyOf(reference, end))
  }

  // ---- Stamps ------------------------------------------------------------------------------------------------

  /**
   * Grows whenever something about a topic, or about one below it, changes: its own record, its note, links, files, and
   * enclosures. Whoever keeps what was computed from a branch compares it. 0 for a topic that was never here, or has not
   * changed since the first question. That costs O(topics on the way from those that changed to their roots), each once.
   */
  stampOf(topic: string): number {
    this.isWatched = true
    if (this.unstamped.size > 0) {
      const stamp = ++this.lastStamp
      for (const changed of this.unstamped)
        for (let at: string | null = changed; at !== null && this.stamps.get(at) !== stamp; ) {
          this.stamps.set(at, stamp)
          const above: TopicRecord | undefined = this.get('topic', at)
          at = above ? parentOf(above) : null
        }
      this.unstamped.clear()
    }
    return this.stamps.get(topic) ?? 0
  }

  /** Notes that the topics at which a record is seen have changed. */
  protected mark(kind: RecordKind, record: AnyRecord): void {
    if (!this.isWatched) return
    for (const topic of this.topicsShowing(kind, record)) this.unstamped.add(topic)
  }

  /** The topics at which something of a record is drawn, as the references of the kinds tell. May repeat some. */
  *topicsShowing(kind: RecordKind, record: AnyRecord): Generator<string> {
    if (kind === 'topic') {
      yield record.id
      for (const link of this.linksAt(record.id)) yield* this.topicsShowing(link.kind, link.record)
    }
    for (const { reference } of indexed.get(kind)!)
      if (reference.seen === 'there') yield* this.topicsAt(record, reference)
    for (const { from, reference } of referencesTo(kind))
      if (reference.seen === 'here')
        for (const referring of this.referring(from, reference, { kind, id: record.id }))
          if (from === 'topic') yield referring.id
          else yield* this.topicsShowing(from, referring)
  }

  private topicsAt(record: AnyRecord, reference: Reference): string[] {
    const topics: string[] = []
    eachEnd(record, reference, ({ kind, id }) => {
      if (kind === 'topic') topics.push(id)
      else if (kind === 'enclosure') topics.push(...(this.get('enclosure', id)?.topics ?? []))
      else if (kind === 'note') for (const carrier of this.carriersOf(id)) topics.push(carrier.id)
      else if (kind === 'map' && reference.to === null) for (const head of this.heads(id)) topics.push(head.id)
    })
    return topics
  }

  /** Records that are drawn between a topic, or an enclosure around it, and another topic. */
  private *linksAt(topic: string): Generator<{ kind: RecordKind; record: AnyRecord }> {
    const ends: End[] = [{ kind: 'topic', id: topic }]
    for (const { id } of this.lookUp('enclosure', 'enclosure.topics.*', topic)) ends.push({ kind: 'enclosure', id })
    for (const end of ends)
      for (const { from, reference } of referencesTo(end.kind as RecordKind))
        if (reference.seen === 'there' && isBetweenTopics(from))
          for (const record of this.referring(from, reference, end)) yield { kind: from, record }
  }

  // ---- Lookups -----------------------------------------------------------------------------------------------

  /** The collection to which all of these records belong; undefined where it is not held. */
  collection(): RecordByKind['collection'] | undefined {
    for (const collection of this.all('collection')) return collection
    return undefined
  }

  /** All children of a topic in order, trashed ones included. The array is shared: do not change it. */
  childrenWithTrashed(parent: string): readonly TopicRecord[] {
    let children = this.sortedChildren.get(parent)
    if (!children) {
      const found = [...this.lookUp('topic', CHILDREN, parent)]
      children = found.length === 0 ? NONE : found.sort(byPlace)
      this.sortedChildren.set(parent, children)
    }
    return children
  }

  /** Children of a topic in order, without those in the trash. The array is shared: do not change it. */
  children(parent: string): readonly TopicRecord[] {
    const all = this.childrenWithTrashed(parent)
    let shown = this.shownChildren.get(parent)
    if (!shown) {
      shown = all.some((topic) => topic.trashed) ? all.filter((topic) => !topic.trashed) : all
      this.shownChildren.set(parent, shown)
    }
    return shown
  }

  /** The ranks of the children of a topic, trashed ones included. O(1) after the first question for a parent. */
  ranksBelow(parent: string): Ranks {
    let ranks = this.ranks.get(parent)
    if (!ranks) {
      ranks = ranksOf(this.lookUp('topic', CHILDREN, parent))
      this.ranks.set(parent, ranks)
    }
    return ranks
  }

  /** The topic at the middle of a map. Undefined while the map's topics are not held. */
  root(map: string): TopicRecord | undefined {
    for (const topic of this.lookUp('topic', HEADS, map))
      if (topic.place.kind === 'root' && !topic.trashed) return topic
    return undefined
  }

  /** Heads of the loose branches of a map, oldest first. */
  looseBranches(map: string): TopicRecord[] {
    return this.heads(map)
      .filter((topic) => topic.place.kind === 'loose' && !topic.trashed)
      .sort(byId)
  }

  /** Heads without a parent, trashed ones included. */
  heads(map: string): TopicRecord[] {
    return [...this.lookUp('topic', HEADS, map)]
  }

  /** Every topic of a map, trashed ones included, in no promised order. */
  topicsOf(map: string): Generator<TopicRecord> {
    return this.lookUp('topic', 'topic.place.map', map)
  }

  /** All topics, trashed ones included, that open a map. */
  doorwaysTo(map: string): TopicRecord[] {
    return [...this.lookUp('topic', 'topic.opensMap', map)]
  }

  /** Topics that carry a note, trashed ones included. */
  carriersOf(note: string): TopicRecord[] {
    return [...this.lookUp('topic', 'topic.note', note)]
  }

  mapsArrivingBy(doorway: string): MapRecord[] {
    return [...this.lookUp('map', 'map.homeDoorway', doorway)]
  }

  /** Cross-links that begin at a topic, oldest first, without those in the trash. */
  crosslinksFrom(topic: string): CrosslinkRecord[] {
    return this.crosslinks('crosslink.from', topic)
  }

  /** Incoming links of a topic, an enclosure, a map or a note, oldest first. */
  crosslinksTo(kind: CrosslinkRecord['to']['kind'], id: string): CrosslinkRecord[] {
    return this.crosslinks('crosslink.to', `${kind} ${id}`)
  }

  private crosslinks(name: string, key: string): CrosslinkRecord[] {
    const found: CrosslinkRecord[] = []
    for (const link of this.lookUp('crosslink', name, key)) if (!link.trashed) found.push(link)
    return found.sort(byId)
  }

  weblinks(topic: string): RecordByKind['weblink'][] {
    return [...this.lookUp('weblink', 'weblink.topic', topic)].filter((link) => !link.trashed).sort(byRank)
  }

  /** Comments on a topic, oldest first. */
  comments(topic: string): RecordByKind['comment'][] {
    return [...this.lookUp('comment', 'comment.topic', topic)].filter(({ trashed }) => !trashed).sort(byId)
  }

  /** Enclosures that name a topic, oldest first. */
  enclosuresOf(topic: string): RecordByKind['enclosure'][] {
    return [...this.lookUp('enclosure', 'enclosure.topics.*', topic)].filter(({ trashed }) => !trashed).sort(byId)
  }

  attachments(topic: string): RecordByKind['attachment'][] {
    return [...this.lookUp('attachment', 'attachment.topic', topic)].filter((link) => !link.trashed).sort(byRank)
  }
}
