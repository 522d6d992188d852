import { generateKeyBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { remembered, settledBetween } from '../matching/common-origin'
import { isIn, joinedFields, openConflicts } from '../matching/conflicts'
import { AS_IT_IS, type ChosenField, type Decision, type MergePlan } from '../matching/decisions'
import { type CrosslinkRecord, isSameEnd, type LinkEnd } from '../records/crosslink'
import { AttachmentId, CrosslinkId, EnclosureId, type MapId, NoteId, TopicId, WeblinkId } from '../records/ids'
import type { HangingPlace } from '../records/place'
import type { TopicRecord } from '../records/topic'
import { joinTexts } from '../text/join-texts'
import { rankAfterLast } from '../tree/rank'
import { command, type Done, type NewChange, named } from './command'
import { copyMap } from './copy-map'
import { endSources, leadLinks } from './end-sources'
import { placesFor } from './hang'
import { renameMap } from './maps'
import { rowsOf } from './sides'

/** What a merge did, counted, and what became of each topic of the sources. */
export interface MergeReport {
  counts: MergeCounts
  /** The map that came of it. */
  result: MapId
  rows: MergedTopic[]
}

export interface MergeCounts {
  added: number
  joined: number
  notesAdded: number
  notesCombined: number
  notesEqual: number
  files: number
  weblinks: number
  crosslinks: number
  /** Links and doorways elsewhere that lead to the result now. */
  led: number
}

/** What became of a topic of a source. */
export interface MergedTopic {
  /** Where it went. */
  topic: TopicId
  text: string
  /** The map that it comes from. */
  from: { id: MapId; title: string }
  act: 'join' | 'add' | 'leave'
  /** The text of the topic with which it was joined, or below which it was added; none where it was left. */
  at: string
  /** How sure it was that both are the same, between 0 and 1, and why; of those that were joined. */
  sure: number | null
  why: string
  /** What both said in their own way, and what was taken from the source. */
  conflicts: ChosenField[]
  taken: readonly ChosenField[]
}

/**
 * Carries out a merge plan as one change: the target, or a copy of it, receives copies of what the sources have. What becomes of
 * the sources then, and of links to them, the plan says. Refused where source or target are other than the plan says, or the plan
 * contradicts itself. O(topics of the sources, with what they carry).
 */
export const mergeMaps = command((change, { plan }: { plan: MergePlan }): Done & { report: MergeReport } => {
  if (plan.sources.includes(plan.target)) refuse('invalid', 'A map cannot be merged into itself.')
  const { title, isNew, sourcesThen, linksFollow } = plan.manner ?? AS_IT_IS
  const name = change.map(plan.target).title
  const result = isNew ? copyMap(change, plan.target, title ?? name) : { map: plan.target, copies: new Map() }
  const merge = new Merge(change, plan, result.copies)
  const sources = plan.decisions.map(({ source }) => change.topic(source, SOURCE_CHANGED))
  checkPlan(change, plan, sources)
  plan.decisions.forEach((decision, i) => {
    if (decision.act === 'join') merge.join(sources[i]!, decision)
    else if (decision.act === 'add') merge.add(sources[i]!, decision.below)
    else merge.leave(sources[i]!, decision.why)
  })
  merge.carryEnclosures()
  for (const source of sources) merge.carryOver(source)
  const ending = { result: result.map, sources: plan.sources, parts: plan.parts ?? [], went: merge.went }
  if (linksFollow || sourcesThen !== 'stay') merge.counts.led += leadLinks(change, ending)
  if (sourcesThen !== 'stay') merge.counts.led += endSources(change, ending, sourcesThen)
  if (!isNew && title !== null && title.trim() !== '' && title !== name)
    renameMap.within(change, { map: plan.target, title })
  const titles = plan.sources.map((map) => named(change.map(map).title))
  return {
    label: `Merge ${titles.join(', ')} into ${named(title ?? name)}`.slice(0, 500).toWellFormed(),
    select: [],
    report: { counts: merge.counts, result: result.map, rows: merge.rows },
  }
})

const SOURCE_CHANGED = 'A source has changed since the plan was made. Plan again.'
const TARGET_CHANGED = 'The target has changed since the plan was made. Plan again.'

/** Refuses a plan that decides about topics of other maps than it names, or twice about one. */
function checkPlan({ records }: NewChange, { sources, target, decisions }: MergePlan, topics: TopicRecord[]): void {
  const maps = new Set<string>(sources)
  if (!topics.every(({ place }) => maps.has(place.map))) refuse('invalid', SOURCE_CHANGED)
  if (new Set(topics.map(({ id }) => id)).size < topics.length)
    refuse('invalid', 'The plan decides twice about one topic.')
  for (const decision of decisions) {
    if (decision.act === 'leave') continue
    const at = decision.act === 'join' ? decision.into : decision.below
    const topic = typeof at === 'string' ? records.get('topic', at) : undefined
    if (topic && topic.place.map !== target) refuse('invalid', TARGET_CHANGED)
  }
}

const keyOf = (below: TopicId | { copyOf: TopicId }): string =>
  typeof below === 'string' ? below : `copy ${below.copyOf}`

class Merge {
  readonly counts: MergeCounts = {
    added: 0,
    joined: 0,
    notesAdded: 0,
    notesCombined: 0,
    notesEqual: 0,
    files: 0,
    weblinks: 0,
    crosslinks: 0,
    led: 0,
  }
  readonly rows: MergedTopic[] = []
  /** Where each topic of a source went. */
  readonly went = new Map<TopicId, TopicId>()
  /** Copies that were added, by the topic that they are copies of. */
  private readonly added = new Map<TopicId, TopicId>()
  private readonly enclosures = new Map<string, EnclosureId>()
  /** What is added below each topic, in order: their places are found together. */
  private readonly comingBelow = new Map<string, TopicId[]>()
  private readonly places = new Map<string, HangingPlace[]>()

  constructor(
    private readonly change: NewChange,
    plan: MergePlan,
    /** Copies of the topics of the target, where a new map is made. */
    private readonly copies: ReadonlyMap<TopicId, TopicId>,
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

  private inResult(topic: TopicId): TopicId {
    return this.copies.get(topic) ?? topic
  }

  join(source: TopicRecord, { into, sure, why, choice }: Extract<Decision, { act: 'join' }>): void {
    const target = this.change.topic(this.inResult(into), TARGET_CHANGED)
    const settled = settledBetween(this.records, this.records.need('topic', into), source)
    const conflicts = openConflicts(target, source, settled)
    const taken = (choice?.takes ?? []).filter((field) => conflicts.includes(field) || isIn(settled?.takes, field))
    const fields = joinedFields(target, source, taken, settled?.keeps)
    this.change.update('topic', target.id, { ...fields, ...(choice?.text ? { text: choice.text } : {}) })
    this.went.set(source.id, target.id)
    this.counts.joined++
    this.rows.push({ ...this.rowOf(source, target), act: 'join', at: target.text, sure, why, conflicts, taken })
    if (isIn(settled?.takes, 'note')) this.takeNote(source, target)
    else if (!isIn(settled?.keeps, 'note')) this.joinNote(source, target)
  }

  /** The note was written on in the source alone since one topic was copied from the other. */
  private takeNote(source: TopicRecord, target: TopicRecord): void {
    const text = this.records.get('note', source.note)?.text ?? ''
    const own = this.records.get('note', target.note)
    if (own) this.change.update('note', own.id, { text })
    else this.change.update('topic', target.id, { note: this.createNote(text) })
  }

  leave(source: TopicRecord, why: string): void {
    const row = { act: 'leave' as const, at: '', sure: null, why, conflicts: [], taken: [] }
    this.rows.push({ ...this.rowOf(source, source), ...row })
  }

  private rowOf({ text, place }: TopicRecord, { id }: { id: TopicId }) {
    return { topic: id, text, from: { id: place.map, title: this.change.map(place.map).title } }
  }

  add(source: TopicRecord, below: TopicId | { copyOf: TopicId }): void {
    const id = typeof below === 'string' ? this.inResult(below) : this.went.get(below.copyOf)
    if (!id) refuse('invalid', 'The plan adds a topic below one that it does not add.')
    const parent = this.change.topic(id, 'The plan names a topic that is not there.')
    const copy: TopicRecord = {
      ...source,
      id: this.change.newId(TopicId),
      place: this.nextPlace(keyOf(below), parent),
      note: null,
      copyOf: remembered(this.records, source),
      trashed: false,
    }
    const note = this.records.get('note', source.note)
    if (note && note.text.trim() !== '') copy.note = this.createNote(note.text)
    this.change.create('topic', copy)
    this.went.set(source.id, copy.id)
    this.added.set(source.id, copy.id)
    this.counts.added++
    const row = { act: 'add' as const, at: parent.text, sure: null, why: '', conflicts: [], taken: [] }
    this.rows.push({ ...this.rowOf(source, copy), ...row })
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
    this.counts.notesAdded++
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
      this.counts.notesAdded++
    } else if (own.text.trim() === from.text.trim()) this.counts.notesEqual++
    else {
      const origin = named(this.change.map(source.place.map).title).replace(/[\\`*_{}[\]<>#|~]/g, '\\$&')
      const text = joinTexts(own.text, `*From ${origin}:*\n\n${from.text}`)
      this.change.update('note', own.id, { text })
      this.counts.notesCombined++
    }
  }

  /** Unites files, web links and cross-links of a source topic with those where it went. */
  carryOver(source: TopicRecord): void {
    const topic = this.went.get(source.id)
    if (!topic) return
    this.carryFiles(source, topic)
    this.carryWeblinks(source, topic)
    for (const link of this.records.crosslinksFrom(source.id)) this.carryCrosslink(link, topic)
  }

  private carryFiles(source: TopicRecord, topic: TopicId): void {
    const own = this.records.attachments(topic)
    const known = new Set(own.map((attachment) => attachment.file))
    let rank = own.at(-1)?.rank ?? null
    for (const attachment of this.records.attachments(source.id)) {
      if (known.has(attachment.file)) continue
      known.add(attachment.file)
      rank = generateKeyBetween(rank, null)
      this.change.create('attachment', { ...attachment, id: this.change.newId(AttachmentId), topic, rank })
      this.counts.files++
    }
  }

  private carryWeblinks(source: TopicRecord, topic: TopicId): void {
    for (const link of this.records.weblinks(source.id)) {
      const own = this.records.weblinks(topic)
      if (own.some(({ url }) => url === link.url)) continue
      this.change.create('weblink', { ...link, id: this.change.newId(WeblinkId), topic, rank: rankAfterLast(own) })
      this.counts.weblinks++
    }
  }

  /** Links within the sources are copied between the copies; links to elsewhere keep their far end. */
  private carryCrosslink(link: CrosslinkRecord, from: TopicId): void {
    const to = this.endOf(link.to)
    const known = this.records.crosslinksFrom(from).some((own) => isSameEnd(own.to, to))
    if (known || to.id === from) return
    this.change.create('crosslink', { ...link, id: this.change.newId(CrosslinkId), from, to })
    this.counts.crosslinks++
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
