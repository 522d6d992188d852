import type { AnyRecord, RecordByKind, RecordKind } from './kinds'
import type { MapRecord } from './map'
import type { TopicRecord } from './topic'

type Index = Map<string, Set<string>>

/** Which fields of which kind are looked up backwards: "all topics with this parent", "all links at this topic". */
const INDEXED: {
  [K in RecordKind]?: { [name: string]: (record: RecordByKind[K]) => string | null | readonly string[] }
} = {
  map: { homeDoorway: (map) => map.homeDoorway },
  topic: {
    parent: (topic) => topic.place.parent,
    head: (topic) => (topic.place.parent === null ? topic.place.map : null),
    map: (topic) => topic.place.map,
    opensMap: (topic) => topic.opensMap,
    note: (topic) => topic.note,
    tag: (topic) => (topic.tags.length > 0 ? topic.tags : null),
  },
  crosslink: {
    from: (link) => link.from,
    toTopic: (link) => link.toTopic,
    toMap: (link) => link.toMap,
    toEnclosure: (link) => link.toEnclosure,
  },
  weblink: { topic: (link) => link.topic },
  attachment: { topic: (attachment) => attachment.topic, file: (attachment) => attachment.file },
  enclosure: { topic: (enclosure) => enclosure.topics },
}

const byRank = (a: { rank: string; id: string }, b: { rank: string; id: string }) =>
  a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0
const byPlace = (a: TopicRecord, b: TopicRecord) =>
  byRank({ rank: a.place.rank, id: a.id }, { rank: b.place.rank, id: b.id })

const NONE: readonly TopicRecord[] = []

/**
 * The records of a collection, or the part of them that somebody holds, with the lookups that commands, layout and
 * the site need. Records themselves are immutable values; the set of them is changed only through `put` and `remove`,
 * which cost O(1) plus one sort of the siblings when they are next asked for.
 */
export class Records {
  private readonly tables = new Map<RecordKind, Map<string, AnyRecord>>()
  private readonly indexes = new Map<string, Index>()
  private readonly sortedChildren = new Map<string, readonly TopicRecord[]>()
  private readonly stamps = new Map<string, number>()
  private lastStamp = 0
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

  put<K extends RecordKind>(kind: K, record: RecordByKind[K]): void {
    this.remove(kind, record.id)
    this.revision++
    let table = this.tables.get(kind)
    if (!table) this.tables.set(kind, (table = new Map()))
    table.set(record.id, record)
    this.reindex(kind, record, true)
    this.stamp(kind, record)
  }

  remove<K extends RecordKind>(kind: K, id: string): void {
    const known = this.get(kind, id)
    if (!known) return
    this.revision++
    this.stamp(kind, known)
    this.reindex(kind, known, false)
    this.tables.get(kind)?.delete(id)
  }

  private reindex<K extends RecordKind>(kind: K, record: RecordByKind[K], present: boolean): void {
    const fields = INDEXED[kind]
    if (!fields) return
    for (const name in fields) {
      const found = fields[name]?.(record) ?? null
      if (found === null) continue
      const indexName = `${kind}.${name}`
      let index = this.indexes.get(indexName)
      if (!index) this.indexes.set(indexName, (index = new Map()))
      for (const key of typeof found === 'string' ? [found] : found) {
        let ids = index.get(key)
        if (!ids) index.set(key, (ids = new Set()))
        if (present) ids.add(record.id)
        else ids.delete(record.id)
        if (indexName === 'topic.parent') this.sortedChildren.delete(key)
      }
    }
  }

  /**
   * Grows whenever something about a topic, or about one below it, changes: its own record, its note, links, files, and
   * enclosures. Whoever keeps what was computed from a branch compares it. 0 for a topic that was never here.
   */
  stampOf(topic: string): number {
    return this.stamps.get(topic) ?? 0
  }

  /** Marks the topics that show this record, and all above them, as changed. */
  private stamp<K extends RecordKind>(kind: K, record: RecordByKind[K]): void {
    for (const topic of this.topicsShowing(kind, record)) {
      const stamp = ++this.lastStamp
      for (let at: string | null = topic; at !== null && this.stamps.get(at) !== stamp; ) {
        this.stamps.set(at, stamp)
        at = this.get('topic', at)?.place.parent ?? null
      }
    }
  }

  private topicsShowing(kind: RecordKind, record: AnyRecord): readonly string[] {
    switch (kind) {
      case 'topic': {
        const { id, place } = record as TopicRecord
        // A link to a topic of another map shows at its near end as quiet.
        const ends = [...this.referring('crosslink', 'from', id), ...this.referring('crosslink', 'toTopic', id)]
        const near = ends.flatMap((link) => [link.from, link.toTopic ?? []].flat()).filter((end) => end !== id)
        return [id, ...(place.parent ? [place.parent] : []), ...near]
      }
      case 'note':
        return this.carriersOf(record.id).map(({ id }) => id)
      case 'crosslink': {
        const { from, toTopic } = record as RecordByKind['crosslink']
        return toTopic ? [from, toTopic] : [from]
      }
      case 'weblink':
      case 'attachment':
        return [(record as RecordByKind['weblink']).topic]
      case 'enclosure':
        return (record as RecordByKind['enclosure']).topics
      case 'tag':
        return this.topicsTagged(record.id).map(({ id }) => id)
      case 'collection':
      case 'map':
      case 'file':
      case 'look':
      case 'template':
        return []
      default:
        return kind satisfies never
    }
  }

  private *referring<K extends RecordKind>(kind: K, field: string, key: string): Generator<RecordByKind[K]> {
    for (const id of this.indexes.get(`${kind}.${field}`)?.get(key) ?? []) yield this.need(kind, id)
  }

  /** The collection to which all of these records belong; undefined where it is not held. */
  collection(): RecordByKind['collection'] | undefined {
    for (const collection of this.all('collection')) return collection
    return undefined
  }

  /** All children of a topic in order, trashed ones included. The array is shared: do not change it. */
  childrenWithTrashed(parent: string): readonly TopicRecord[] {
    let children = this.sortedChildren.get(parent)
    if (!children) {
      const ids = this.indexes.get('topic.parent')?.get(parent)
      if (!ids || ids.size === 0) return NONE
      children = [...this.referring('topic', 'parent', parent)].sort(byPlace)
      this.sortedChildren.set(parent, children)
    }
    return children
  }

  /** Children of a topic in order, without those in the trash. */
  children(parent: string): readonly TopicRecord[] {
    const all = this.childrenWithTrashed(parent)
    return all.some((topic) => topic.trashed) ? all.filter((topic) => !topic.trashed) : all
  }

  /** The topic at the middle of a map. Undefined while the map's topics are not held. */
  root(map: string): TopicRecord | undefined {
    for (const topic of this.referring('topic', 'head', map)) if (topic.place.x === null && !topic.trashed) return topic
    return undefined
  }

  /** Heads of the loose branches of a map, in order. */
  looseBranches(map: string): TopicRecord[] {
    return [...this.referring('topic', 'head', map)]
      .filter((topic) => topic.place.x !== null && !topic.trashed)
      .sort(byPlace)
  }

  /** Heads without a parent, trashed ones included. */
  heads(map: string): TopicRecord[] {
    return [...this.referring('topic', 'head', map)]
  }

  /** Every topic of a map, trashed ones included, in no promised order. */
  topicsOf(map: string): Generator<TopicRecord> {
    return this.referring('topic', 'map', map)
  }

  /** All topics, trashed ones included, that open a map. */
  doorwaysTo(map: string): TopicRecord[] {
    return [...this.referring('topic', 'opensMap', map)]
  }

  carriersOf(note: string): TopicRecord[] {
    return [...this.referring('topic', 'note', note)]
  }

  /** Topics that carry a tag, trashed ones included, in no promised order. */
  topicsTagged(tag: string): TopicRecord[] {
    return [...this.referring('topic', 'tag', tag)]
  }

  mapsArrivingBy(doorway: string): MapRecord[] {
    return [...this.referring('map', 'homeDoorway', doorway)]
  }

  /** Cross-links that begin at a topic, oldest first, without those in the trash. */
  crosslinksFrom(topic: string): RecordByKind['crosslink'][] {
    return [...this.referring('crosslink', 'from', topic)].filter((link) => !link.trashed).sort(byId)
  }

  /** Incoming links of a topic, oldest first. */
  crosslinksTo(topic: string): RecordByKind['crosslink'][] {
    return [...this.referring('crosslink', 'toTopic', topic)].filter((link) => !link.trashed).sort(byId)
  }

  /** Incoming links of a map as a whole, oldest first. */
  crosslinksToMap(map: string): RecordByKind['crosslink'][] {
    return [...this.referring('crosslink', 'toMap', map)].filter((link) => !link.trashed).sort(byId)
  }

  /** Incoming links of an enclosure, oldest first. */
  crosslinksToEnclosure(enclosure: string): RecordByKind['crosslink'][] {
    return [...this.referring('crosslink', 'toEnclosure', enclosure)].filter((link) => !link.trashed).sort(byId)
  }

  weblinks(topic: string): RecordByKind['weblink'][] {
    return [...this.referring('weblink', 'topic', topic)].filter((link) => !link.trashed).sort(byRank)
  }

  /** Enclosures that name a topic, oldest first. */
  enclosuresOf(topic: string): RecordByKind['enclosure'][] {
    return [...this.referring('enclosure', 'topic', topic)].filter((enclosure) => !enclosure.trashed).sort(byId)
  }

  attachments(topic: string): RecordByKind['attachment'][] {
    return [...this.referring('attachment', 'topic', topic)].filter((link) => !link.trashed).sort(byRank)
  }
}

const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)
