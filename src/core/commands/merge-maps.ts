import { generateKeyBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import type { MergePlan } from '../matching/decisions'
import { type CrosslinkRecord, isSameEnd, type LinkEnd } from '../records/crosslink'
import { AttachmentId, CrosslinkId, EnclosureId, NoteId, TopicId, WeblinkId } from '../records/ids'
import type { HangingPlace } from '../records/place'
import type { TopicRecord } from '../records/topic'
import { joinTexts } from '../text/join-texts'
import { rankAfterLast } from '../tree/rank'
import { command, type Done, type NewChange, named } from './command'
import { placesFor } from './hang'
import { rowsOf } from './sides'

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

/**
 * Carries out a merge plan as one change. The sources stay as they are: the target receives copies. Refused where
 * source or target are other than the plan says, or the plan contradicts itself. O(topics of the sources, with what
 * they carry).
 */
export const mergeMaps = command((change, { plan }: { plan: MergePlan }): Done & { report: MergeReport } => {
  if (plan.sources.includes(plan.target)) refuse('invalid', 'A map cannot be merged into itself.')
  const merge = new Merge(change, plan)
  const sources = plan.decisions.map(({ source }) =>
    change.topic(source, 'A source has changed since the plan was made. Plan again.'),
  )
  plan.decisions.forEach((decision, i) => {
    if (decision.act === 'join') merge.join(sources[i]!, decision.into)
    else merge.add(sources[i]!, decision.below)
  })
  merge.carryEnclosures()
  for (const source of sources) merge.carryOver(source)
  const titles = plan.sources.map((map) => named(change.map(map).title))
  return {
    label: `Merge ${titles.join(', ')} into ${named(change.map(plan.target).title)}`.slice(0, 500).toWellFormed(),
    select: [],
    report: merge.report,
  }
})

const keyOf = (below: TopicId | { copyOf: TopicId }): string =>
  typeof below === 'string' ? below : `copy ${below.copyOf}`

class Merge {
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
  private readonly enclosures = new Map<string, EnclosureId>()
  /** What is added below each topic, in order: their places are found together. */
  private readonly comingBelow = new Map<string, TopicId[]>()
  private readonly places = new Map<string, HangingPlace[]>()

  constructor(
    private readonly change: NewChange,
    plan: MergePlan,
  ) {
    for (const decision of plan.decisions) {
      if (decision.act !== 'add') continue
      const key = keyOf(decision.below)
      const coming = this.comingBelow.get(key)
      if (coming) coming.push(decision.source)
      else this.comingBelow.set(key, [decision.source])
    }
  }

  private get records() {
    return this.change.records
  }

  join(source: TopicRecord, into: TopicId): void {
    const target = this.change.topic(into, 'The target has changed since the plan was made. Plan again.')
    this.went.set(source.id, target.id)
    this.report.joined++
    this.joinNote(source, target)
  }

  add(source: TopicRecord, below: TopicId | { copyOf: TopicId }): void {
    const id = typeof below === 'string' ? below : this.went.get(below.copyOf)
    if (!id) refuse('invalid', 'The plan adds a topic below one that it does not add.')
    const parent = this.change.topic(id, 'The plan names a topic that is not there.')
    const copy: TopicRecord = {
      ...source,
      id: this.change.newId(TopicId),
      place: this.nextPlace(keyOf(below), parent),
      note: null,
      trashed: false,
    }
    const note = this.records.get('note', source.note)
    if (note && note.text.trim() !== '') copy.note = this.createNote(note.text)
    this.change.create('topic', copy)
    this.went.set(source.id, copy.id)
    this.added.set(source.id, copy.id)
    this.report.added++
  }

  private nextPlace(key: string, parent: TopicRecord): HangingPlace {
    let places = this.places.get(key)
    if (!places) {
      const coming = this.comingBelow.get(key)!.map((id) => this.records.get('topic', id))
      const weights = coming.map((topic) => (topic ? rowsOf(this.records, topic) : 1))
      this.places.set(key, (places = placesFor(this.records, { parent, after: 'last' }, weights).reverse()))
    }
    return places.pop()!
  }

  private createNote(text: string): NoteId {
    const id = this.change.newId(NoteId)
    this.change.create('note', { id, text, joinedInto: null, trashed: false })
    this.report.notesAdded++
    return id
  }

  /** Equal notes stay once; different ones are set one after the other, the added part with its origin. */
  private joinNote(source: TopicRecord, target: TopicRecord): void {
    const from = this.records.get('note', source.note)
    if (!from || from.text.trim() === '') return
    const own = this.records.get('note', target.note)
    if (!own) this.change.update('topic', target.id, { note: this.createNote(from.text) })
    else if (own.text.trim() === '') {
      this.change.update('note', own.id, { text: from.text })
      this.report.notesAdded++
    } else if (own.text.trim() === from.text.trim()) this.report.notesEqual++
    else {
      const origin = named(this.change.map(source.place.map).title).replace(/[\\`*_{}[\]<>#|~]/g, '\\$&')
      const text = joinTexts(own.text, `*From ${origin}:*\n\n${from.text}`)
      this.change.update('note', own.id, { text })
      this.report.notesCombined++
    }
  }

  /** Unites files, web links and cross-links of a source topic with those where it went. */
  carryOver(source: TopicRecord): void {
    const topic = this.went.get(source.id)!
    this.carryFiles(source, topic)
    this.carryWeblinks(source, topic)
    for (const link of this.records.crosslinksFrom(source.id)) this.carryCrosslink(link, topic)
  }

  private carryFiles(source: TopicRecord, topic: TopicId): void {
    const own = this.records.attachments(topic)
    const known = new Set(own.map((attachment) => attachment.file))
    let rank = own.at(-1)?.rank ?? null
    for (const { file } of this.records.attachments(source.id)) {
      if (known.has(file)) continue
      known.add(file)
      rank = generateKeyBetween(rank, null)
      this.change.create('attachment', { id: this.change.newId(AttachmentId), topic, file, rank, trashed: false })
      this.report.files++
    }
  }

  private carryWeblinks(source: TopicRecord, topic: TopicId): void {
    for (const link of this.records.weblinks(source.id)) {
      const own = this.records.weblinks(topic)
      if (own.some(({ url }) => url === link.url)) continue
      this.change.create('weblink', { ...link, id: this.change.newId(WeblinkId), topic, rank: rankAfterLast(own) })
      this.report.weblinks++
    }
  }

  /** Links within the sources are copied between the copies; links to elsewhere keep their far end. */
  private carryCrosslink(link: CrosslinkRecord, from: TopicId): void {
    const to = this.endOf(link.to)
    const known = this.records.crosslinksFrom(from).some((own) => isSameEnd(own.to, to))
    if (known || to.id === from) return
    this.change.create('crosslink', { ...link, id: this.change.newId(CrosslinkId), from, to })
    this.report.crosslinks++
  }

  private endOf(end: LinkEnd): LinkEnd {
    if (end.kind === 'topic') return { kind: 'topic', id: this.went.get(end.id) ?? end.id }
    if (end.kind === 'enclosure') return { kind: 'enclosure', id: this.enclosures.get(end.id) ?? end.id }
    return end
  }

  /** Enclosures go along where every topic that they name does. */
  carryEnclosures(): void {
    for (const source of this.went.keys())
      for (const enclosure of this.records.enclosuresOf(source)) {
        const topics = enclosure.topics.flatMap((topic) => this.added.get(topic) ?? [])
        if (enclosure.topics[0] !== source || topics.length < enclosure.topics.length) continue
        const id = this.change.newId(EnclosureId)
        this.enclosures.set(enclosure.id, id)
        this.change.create('enclosure', { ...enclosure, id, topics })
      }
  }
}
