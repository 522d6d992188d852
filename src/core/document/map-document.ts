import { readOwnAddress } from '../formats/own-address'
import type { Gathered } from '../layout/gathered'
import { enclosureAtEnd, enclosureName, incomingAt, topicsAtEnd } from '../network/crosslinks'
import { usesOf } from '../network/file-ledger'
import { noteLinks } from '../network/note-links'
import type { Dates, TaskState } from '../records/dates'
import type { FileRecord } from '../records/file'
import type { MapId, TopicId } from '../records/ids'
import type { MapRecord } from '../records/map'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { mapNumbers } from '../tree/map-numbers'
import { isInTrash, topicsInOrder } from '../tree/walk'

/** What a map says, in reading order and without the form in which it is read: a page, a printed book, a text file. */
export interface MapDocument {
  title: string
  root: DocumentTopic
  /** Enclosures that say something, with what they are around. */
  enclosures: readonly { title: string; note: string; topics: readonly TopicTarget[] }[]
  /** The doorways through which one comes to this map. */
  arriving: readonly TopicTarget[]
}

export interface DocumentTopic {
  id: TopicId
  /** Never empty. */
  text: string
  /** Its number, computed or fixed. */
  number: string | null
  /** The map to which it is a doorway, where that is told too. */
  opens: MapId | null
  picture: { file: FileRecord; width: number; height: number } | null
  task: TaskState | null
  tags: readonly string[]
  dates: Dates | null
  /** CommonMark; empty where there is none. */
  note: string
  /** Other topics that carry the same note. */
  alsoCarriedBy: readonly TopicTarget[]
  links: readonly DocumentLink[]
  files: readonly FileRecord[]
  /** Topics that a gathered list found, where they are told too; null where it is no list. */
  gathered: readonly GatheredTarget[] | null
  below: readonly DocumentTopic[]
}

export interface TopicTarget {
  kind: 'topic'
  id: TopicId
  text: string
  map: { id: MapId; title: string }
}
/** A topic that was gathered, with what is to be seen of it in its list. */
export interface GatheredTarget extends TopicTarget {
  task: TaskState | null
  dates: Dates | null
}
export interface MapTarget {
  kind: 'map'
  id: MapId
  title: string
}

export type DocumentLink =
  | { kind: 'leads to'; target: TopicTarget | MapTarget; label: string }
  | { kind: 'comes from'; target: TopicTarget; label: string }
  | { kind: 'web'; address: string; title: string }

/** What gathered lists found, by the topic below which it is shown. */
export type GatheredTopics = ReadonlyMap<string, readonly TopicId[]>

const UNTITLED = 'Untitled'

/**
 * Makes documents of maps. `tells` says which maps are told with them: links to any other are left out, as is what lies in
 * the trash. Depth is no limit for it, only for who recurses over `below`.
 */
export class MapTeller {
  private inNotes: ReadonlyMap<string, readonly TopicId[]> | null = null

  constructor(
    private readonly records: Records,
    private readonly tells: (map: string) => boolean,
    private readonly found: GatheredTopics = new Map(),
  ) {}

  /** O(topics of the map, with their links). Throws a RangeError for a map without a root. */
  document(map: MapRecord): MapDocument {
    const root = this.records.root(map.id)
    if (!root) throw new RangeError('A map without a root says nothing.')
    return {
      title: map.title,
      root: this.tree(root, mapNumbers(this.records, map.id)),
      enclosures: this.enclosures(map),
      arriving: this.records.doorwaysTo(map.id).flatMap(({ id }) => this.topic(id) ?? []),
    }
  }

  /** The root with everything below it; loose branches follow what hangs on it. */
  private tree(root: TopicRecord, numbers: ReadonlyMap<string, string>): DocumentTopic {
    const told = (topic: TopicRecord) => {
      const below: DocumentTopic[] = []
      return { topic, below, part: this.part(topic, numbers.get(topic.id) ?? null, below) }
    }
    const first = told(root)
    const waiting = [first]
    for (let at = waiting.pop(); at; at = waiting.pop()) {
      const children = this.records.children(at.topic.id)
      for (const child of at === first ? [...children, ...this.records.looseBranches(root.place.map)] : children) {
        const next = told(child)
        at.below.push(next.part)
        waiting.push(next)
      }
    }
    return first.part
  }

  private part(topic: TopicRecord, number: string | null, below: readonly DocumentTopic[]): DocumentTopic {
    const { records } = this
    const picture = topic.picture && records.get('file', topic.picture.file)
    return {
      id: topic.id,
      text: topic.text || UNTITLED,
      number,
      opens: topic.opensMap && this.tells(topic.opensMap) ? topic.opensMap : null,
      picture: picture ? { file: picture, width: topic.picture!.width, height: topic.picture!.height } : null,
      task: topic.task,
      tags: topic.tags.flatMap((id) => {
        const tag = records.get('tag', id)
        return tag && !tag.trashed ? tag.name : []
      }),
      dates: topic.dates,
      note: records.get('note', topic.note)?.text.trim() ? records.need('note', topic.note).text : '',
      links: [...this.leaving(topic), ...this.arrivingAt(topic), ...this.linkedInNotes(topic), ...this.weblinks(topic)],
      alsoCarriedBy: this.otherCarriers(topic),
      files: records.attachments(topic.id).flatMap(({ file }) => records.get('file', file) ?? []),
      gathered: topic.gathers ? this.gathered(topic) : null,
      below,
    }
  }

  private gathered({ id }: TopicRecord): GatheredTarget[] {
    return (this.found.get(id) ?? []).flatMap((found) => {
      const target = found === id ? null : this.topic(found)
      if (!target) return []
      const { task, dates } = this.records.need('topic', found)
      return { ...target, task, dates }
    })
  }

  /** What the gathered lists found that is told, for drawing them. */
  get shownInLists(): Gathered {
    return {
      of: (list) => this.gathered(list).map(({ id }) => this.records.need('topic', id)),
      stamp: 0,
    }
  }

  /** A topic as something to lead to; null where it is not told. */
  topic(id: string): TopicTarget | null {
    const topic = this.records.get('topic', id)
    if (!topic || !this.tells(topic.place.map) || isInTrash(this.records, topic)) return null
    const { id: map, title } = this.records.need('map', topic.place.map)
    return { kind: 'topic', id: topic.id, text: topic.text || UNTITLED, map: { id: map, title } }
  }

  private leaving(topic: TopicRecord): DocumentLink[] {
    return this.records.crosslinksFrom(topic.id).flatMap((link): DocumentLink[] => {
      const { to, label } = link
      if (to.kind === 'map') {
        if (!this.tells(to.id)) return []
        const { title } = this.records.need('map', to.id)
        return [{ kind: 'leads to', target: { kind: 'map', id: to.id, title }, label }]
      }
      const [target] = topicsAtEnd(this.records, link).flatMap(({ id }) => this.topic(id) ?? [])
      if (!target) return []
      const enclosure = enclosureAtEnd(this.records, link)
      const text = enclosure ? enclosureName(this.records, enclosure) : target.text
      return [{ kind: 'leads to', target: { ...target, text }, label }]
    })
  }

  private arrivingAt(topic: TopicRecord): DocumentLink[] {
    return incomingAt(this.records, topic).flatMap((link): DocumentLink[] => {
      const target = this.topic(link.from)
      if (!target) return []
      const enclosure = enclosureAtEnd(this.records, link)
      return [
        { kind: 'comes from', target, label: enclosure ? `to ${enclosureName(this.records, enclosure)}` : link.label },
      ]
    })
  }

  /** Topics whose notes lead to a topic. */
  private linkedInNotes(topic: TopicRecord): DocumentLink[] {
    this.inNotes ??= noteLinks(this.records)
    return (this.inNotes.get(topic.id) ?? []).flatMap((from): DocumentLink[] => {
      const target = from === topic.id ? null : this.topic(from)
      return target ? [{ kind: 'comes from', target, label: 'in its note' }] : []
    })
  }

  private otherCarriers({ id, note }: TopicRecord): TopicTarget[] {
    if (!note || (this.records.get('note', note)?.text.trim() ?? '') === '') return []
    return this.records
      .carriersOf(note)
      .flatMap((carrier) => (carrier.id === id ? [] : (this.topic(carrier.id) ?? [])))
      .sort((a, b) => (a.id < b.id ? -1 : 1))
  }

  private weblinks(topic: TopicRecord): DocumentLink[] {
    return this.records.weblinks(topic.id).map(({ url, title }) => ({ kind: 'web', address: url, title: title || url }))
  }

  private enclosures(map: MapRecord): MapDocument['enclosures'] {
    const { records } = this
    const around = [...topicsInOrder(records, map.id)].flatMap((topic) => records.enclosuresOf(topic.id))
    return [...new Set(around)]
      .filter(({ trashed, note }) => !trashed && note.trim() !== '')
      .sort((a, b) => (a.id < b.id ? -1 : 1))
      .map(({ title, note, topics }) => ({
        title,
        note,
        topics: topics.flatMap((id) => {
          const target = this.topic(id)
          return target?.map.id === map.id ? target : []
        }),
      }))
      .filter(({ topics }) => topics.length > 0)
  }

  /** Where an address inside a note leads: `folvet:` with a kind and an id. Null for all others, and for what is not told. */
  noteTarget(
    address: string,
  ):
    | (TopicTarget & { passage: string | null })
    | MapTarget
    | { kind: 'file'; file: FileRecord; page: number | null }
    | null {
    const own = readOwnAddress(address)
    if (own?.kind === 'topic') {
      const target = this.topic(own.id)
      return target && { ...target, passage: own.passage }
    }
    if (own?.kind === 'map') {
      const map = this.records.get('map', own.id)
      return map && this.tells(map.id) ? { kind: 'map', id: map.id, title: map.title } : null
    }
    const file = own && this.records.get('file', own.id)
    return file && this.tellsFile(file) ? { kind: 'file', file, page: own.page } : null
  }

  /** Whether a file is told with a map: it hangs on a topic there, or is its picture. */
  private tellsFile(file: FileRecord): boolean {
    return usesOf(this.records, file).some(
      ({ how, map }) => map !== null && this.tells(map) && (how === 'file' || how === 'picture'),
    )
  }
}
