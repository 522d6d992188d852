import { generateKeyBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import type { MergePlan } from '../matching/merge-plan'
import { AttachmentId, CrosslinkId, EnclosureId, NoteId, TopicId, WeblinkId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { rankAfterLast } from '../tree/rank'
import { Draft, type Making, named, type Outcome } from './command'
import { joinTexts } from './join-notes'
import { sideForNew } from './sides'

/** What a merge did, counted. */
export interface MergeReport {
  added: number
  joined: number
  notesAdded: number
  notesCombined: number
  notesEqual: number
  files: number
  weblinks: number
  crosslinks: number
}

/** Carries out a merge plan as one change. The sources stay as they are: the target receives copies. */
export function mergeMaps(
  records: Records,
  args: { plan: MergePlan },
  making: Making,
): Outcome & { report: MergeReport } {
  const { plan } = args
  if (plan.sources.includes(plan.target)) refuse('invalid', 'A map cannot be merged into itself.')
  const merge = new Merge(records, making)
  for (const decision of plan.decisions) {
    const source =
      records.get('topic', decision.source) ??
      refuse('gone', 'A source has changed since the plan was made. Plan again.')
    if (decision.act === 'join') merge.join(source, decision.into)
    else merge.add(source, decision.below)
  }
  merge.carryEnclosures()
  for (const decision of plan.decisions) merge.carryOver(records.need('topic', decision.source))
  const titles = plan.sources.map((map) => named(records.need('map', map).title))
  return {
    ...merge.draft.outcome(`Merge ${titles.join(', ')} into ${named(records.need('map', plan.target).title)}`),
    report: merge.report,
  }
}

class Merge {
  readonly draft: Draft
  readonly report: MergeReport = {
    added: 0,
    joined: 0,
    notesAdded: 0,
    notesCombined: 0,
    notesEqual: 0,
    files: 0,
    weblinks: 0,
    crosslinks: 0,
  }
  /** Where each topic of a source went. */
  private readonly went = new Map<TopicId, TopicId>()
  /** Copies that were added, by the topic that they are copies of. */
  private readonly added = new Map<TopicId, TopicId>()
  private readonly lastRank = new Map<TopicId, string | null>()
  /** Notes of target topics as they will be, for several sources that join the same topic. */
  private readonly notes = new Map<TopicId, { id: NoteId; text: string }>()
  private readonly enclosures = new Map<EnclosureId, EnclosureId>()
  private readonly linked = new Set<string>()

  constructor(
    private readonly records: Records,
    making: Making,
  ) {
    this.draft = new Draft(records, making)
  }

  join(source: TopicRecord, into: TopicId): void {
    const target =
      this.records.get('topic', into) ?? refuse('gone', 'The target has changed since the plan was made. Plan again.')
    this.went.set(source.id, target.id)
    this.report.joined++
    this.joinNote(source, target)
  }

  add(source: TopicRecord, below: TopicId | { copyOf: TopicId }): void {
    const parent = typeof below === 'string' ? below : this.went.get(below.copyOf)
    if (!parent) refuse('invalid', 'The plan adds a topic below one that it does not add.')
    const id = this.draft.newId(TopicId)
    const existing = this.records.get('topic', parent)
    const isRoot = existing?.place.parent === null && existing.place.x === null
    const map = existing?.place.map ?? this.mapOf(parent)
    const place = {
      map,
      parent,
      rank: this.nextRank(parent),
      side: isRoot ? sideForNew(this.records, existing, undefined) : null,
      x: null,
      y: null,
    }
    const copy: TopicRecord = { ...source, id, place, note: null, trashed: false }
    const note = this.records.get('note', source.note)
    if (note && note.text.trim() !== '') {
      copy.note = this.draft.create('note', { id: this.draft.newId(NoteId), text: note.text, trashed: false }).id
      this.report.notesAdded++
    }
    this.draft.create('topic', copy)
    this.went.set(source.id, id)
    this.added.set(source.id, id)
    this.maps.set(id, map)
    this.report.added++
  }

  private readonly maps = new Map<TopicId, TopicRecord['place']['map']>()
  private mapOf(topic: TopicId): TopicRecord['place']['map'] {
    return this.maps.get(topic) ?? refuse('invalid', 'The plan names a topic that is not there.')
  }

  private nextRank(parent: TopicId): string {
    const last = this.lastRank.has(parent)
      ? this.lastRank.get(parent)!
      : (this.records.childrenWithTrashed(parent).at(-1)?.place.rank ?? null)
    const rank = generateKeyBetween(last, null)
    this.lastRank.set(parent, rank)
    return rank
  }

  /** Equal notes stay once; different ones are set one after the other, the added part with its origin. */
  private joinNote(source: TopicRecord, target: TopicRecord): void {
    const from = this.records.get('note', source.note)
    if (!from || from.text.trim() === '') return
    const own = this.notes.get(target.id) ?? this.records.get('note', target.note)
    if (!own || own.text.trim() === '') {
      const note = { id: own?.id ?? this.draft.newId(NoteId), text: from.text }
      if (own) this.draft.update('note', note.id, { text: note.text })
      else {
        this.draft.create('note', { ...note, trashed: false })
        this.draft.update('topic', target.id, { note: note.id })
      }
      this.notes.set(target.id, note)
      this.report.notesAdded++
    } else if (own.text.trim() === from.text.trim()) this.report.notesEqual++
    else {
      const origin = named(this.records.need('map', source.place.map).title).replace(/[\\`*_{}[\]<>#|~]/g, '\\$&')
      const text = joinTexts(own.text, `*From ${origin}:*\n\n${from.text}`)
      this.draft.update('note', own.id, { text })
      this.notes.set(target.id, { id: own.id, text })
      this.report.notesCombined++
    }
  }

  /** Unites files, web links and cross-links of a source topic with those where it went. */
  carryOver(source: TopicRecord): void {
    const topic = this.went.get(source.id)!
    this.carryFiles(source, topic)
    this.carryWeblinks(source, topic)
    this.carryCrosslinks(source, topic)
  }

  private carryFiles(source: TopicRecord, topic: TopicId): void {
    const own = this.records.attachments(topic)
    const known = new Set(own.map((attachment) => attachment.file))
    let rank = own.at(-1)?.rank ?? null
    for (const { file } of this.records.attachments(source.id)) {
      if (known.has(file) || this.seen(`${topic} ${file}`)) continue
      rank = generateKeyBetween(rank, null)
      this.draft.create('attachment', { id: this.draft.newId(AttachmentId), topic, file, rank, trashed: false })
      this.report.files++
    }
  }

  private carryWeblinks(source: TopicRecord, topic: TopicId): void {
    const own = this.records.weblinks(topic)
    let last = own
    for (const link of this.records.weblinks(source.id)) {
      if (own.some((known) => known.url === link.url) || this.seen(`${topic} ${link.url}`)) continue
      const copy = { ...link, id: this.draft.newId(WeblinkId), topic, rank: rankAfterLast(last) }
      this.draft.create('weblink', copy)
      last = [...last, copy]
      this.report.weblinks++
    }
  }

  /** Links within the sources are copied between the copies; links to elsewhere keep their far end. */
  private carryCrosslinks(source: TopicRecord, topic: TopicId): void {
    for (const link of this.records.crosslinksFrom(source.id)) {
      const toTopic = link.toTopic && (this.went.get(link.toTopic) ?? link.toTopic)
      const copied = link.toEnclosure && this.enclosures.get(link.toEnclosure)
      const toEnclosure = copied ?? (toTopic === link.toTopic ? link.toEnclosure : null)
      const end = `${toEnclosure ?? toTopic ?? link.toMap}`
      const known = this.records
        .crosslinksFrom(topic)
        .some((own) => own.toTopic === toTopic && own.toMap === link.toMap && own.toEnclosure === toEnclosure)
      if (known || toTopic === topic || this.seen(`${topic} ${end}`)) continue
      const id = this.draft.newId(CrosslinkId)
      this.draft.create('crosslink', { ...link, id, from: topic, toTopic, toEnclosure })
      this.report.crosslinks++
    }
  }

  /** Enclosures go along where every topic that they name does. */
  carryEnclosures(): void {
    for (const [source] of this.went)
      for (const enclosure of this.records.enclosuresOf(source)) {
        const topics = enclosure.topics.map((topic) => this.added.get(topic))
        if (enclosure.topics[0] !== source || !topics.every((topic) => topic !== undefined)) continue
        const id = this.draft.newId(EnclosureId)
        this.enclosures.set(enclosure.id, id)
        this.draft.create('enclosure', { ...enclosure, id, topics })
      }
  }

  /** Whether this was asked before: several sources can bring the same thing. */
  private seen(key: string): boolean {
    if (this.linked.has(key)) return true
    this.linked.add(key)
    return false
  }
}
