import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import type { Change, ToldChange } from '../../core/changes/edit'
import { type Overlap, overlapsIn } from '../../core/changes/overlaps'
import { Refusal } from '../../core/changes/problem'
import { touchedMaps } from '../../core/changes/touched-maps'
import { leavesOut, undoChange } from '../../core/changes/undo'
import type { IdSource, Outcome } from '../../core/commands/command'
import { type Evened, withEvenSides } from '../../core/commands/even-out-sides'
import { withKeptPlaces } from '../../core/free/kept-places'
import { ChangeId, type MapId, type PersonId, type TopicId } from '../../core/records/ids'
import type { Records } from '../../core/records/records'
import { CollectionDigest, type MapDigest, type ToldJob } from '../../core/records/snapshot'
import { TemplateRecord } from '../../core/records/template'
import { topicsInOrder } from '../../core/tree/walk'
import { announce } from '../app/announce'
import { ask, askFor, tell, tellTrouble } from '../app/api'
import { Calm } from '../app/calm'
import { fontsHere } from '../app/late-parts'
import { tellThatAlive } from '../app/tab'
import { Told } from './api-schemas'
import { Buried, type BuriedWords } from './buried'
import { ChangeFeed } from './change-feed'
import { DigestRows } from './digest-rows'
import { Drafts, type Field, recoverDrafts } from './drafts'
import { HeldState } from './held-state'
import { Jobs } from './jobs'
import { KeptHere, keptInstead } from './kept-here'
import type { KeptCollection } from './kept-maps'
import { OnServer } from './on-server'
import { OpenMaps } from './open-maps'
import type { Aside } from './outbox'
import { type NamedStep, OwnHistory } from './own-history'
import { barredFrom, mayCommentOn, mayEdit, mayEditMap } from './rights'
import { Sending } from './sending'
import { Trial } from './trial'
import { unsentOf } from './unsent'

const newIds: IdSource = { newId: uuid }

/**
 * A person's work on one collection in this tab: what is held, what is not yet sent, undo and redo, and everything
 * that others do. Views read from it and are told when something changed; they alter it only through `run`.
 */
export class CollectionSession {
  private readonly held = new HeldState()
  private readonly trial = new Trial(this.held, newIds, (change) => this.withPlaces(change))
  private readonly rows = new DigestRows()
  private readonly buried: Buried
  /** Changes that were made in this window. */
  private readonly madeHere = new Set<string>()
  private readonly own = new OwnHistory()
  readonly jobs = new Jobs()
  private readonly sending: Sending
  /** What is being written here and is no change yet. */
  readonly drafts: Drafts
  /** The fields in which something was being written when a page of this person's came to no good end; it is saved since. */
  readonly recovered: Field[] = []
  /** What the server, which knows the whole collection, can be asked to do. */
  readonly server: OnServer
  private readonly feed: ChangeFeed
  private readonly listeners = new Set<() => void>()
  private readonly keptHere: KeptHere
  private isConnected = true
  private readonly openMaps: OpenMaps
  /** Grows with every change of what is held; views compare it. */
  version = 0
  /** Grows with the counts of maps that are not open. */
  private countsVersion = 0
  /** How many changes, of anybody and anywhere in the collection, were told to this tab. */
  changesHeard = 0

  private constructor(
    private digest: CollectionDigest,
    kept: KeptCollection | null,
  ) {
    this.calmVersion = new Calm(
      (listener) => this.subscribe(listener),
      () => this.version,
    )
    this.rows.take(digest.maps, digest.number)
    this.held.records.put('collection', digest.collection)
    for (const folder of digest.folders) this.held.records.put('folder', folder)
    const { id, person } = { id: digest.collection.id, person: digest.person }
    askFor(person)
    this.keptHere = new KeptHere(id)
    this.openMaps = new OpenMaps({
      id,
      held: this.held,
      keptHere: this.keptHere,
      feed: () => this.feed,
      number: () => this.digest.number,
      isConnected: () => this.isConnected,
      isShut: (map) => this.isShut(map),
      whenSaved: () => this.whenSaved(),
      changed: () => this.changed(),
    })
    if (kept) {
      this.openMaps.shownAsAt = new Date(kept.at)
      this.isConnected = false
      this.held.heardBefore(kept.told)
    } else this.keptHere.digest(digest)
    this.sending = new Sending(id, person, {
      committed: (change, sent) => {
        this.held.answered(change.id, change)
        this.own.noteEdits(change)
        for (const overlap of overlapsIn(sent, change)) this.onOverlap(overlap)
        if (change.undoes && leavesOut(sent, change)) tell(LEFT_ALONE)
      },
      dropped: (change, message) => this.drop(change, message),
      changed: () => this.changed(),
      isConnected: () => this.isConnected,
    })
    this.drafts = new Drafts(id, person)
    this.buried = new Buried(
      this.held.records,
      person,
      (map) => this.isOpen(map),
      (change) => this.madeHere.has(change),
    )
    this.feed = new ChangeFeed(id, kept?.told.at(-1)?.number ?? digest.number, {
      take: (changes) => this.take(changes),
      takeRows: (rows, number) => this.takeRows(rows, number),
      takeJobs: (jobs) => this.takeJobs(jobs),
      resync: () => void this.resync().catch(tellTrouble),
      connected: (isConnected) => this.setConnected(isConnected),
      refused: (error) => {
        this.keptHere.forget()
        tellTrouble(error)
      },
    })
    this.server = new OnServer(id, this.jobs, {
      sent: () => this.sending.outbox.run(),
      willBeMade: (change) => {
        this.madeHere.add(change)
        this.own.willBeMade(change, this.shown())
      },
      made: (change) => this.own.note(change, this.shown()),
      catchUp: () => this.feed.catchUp(),
    })
  }

  static async start(collection: string): Promise<CollectionSession> {
    let kept: KeptCollection | null = null
    const digest = await ask(CollectionDigest, `/api/collections/${collection}`).catch(async (error: unknown) => {
      kept = await keptInstead(collection, error)
      return kept.digest
    })
    const session = new CollectionSession(digest, kept)
    const { changes, asides } = await unsentOf(collection, digest.person)
    tellThatAlive()
    const drafts = await recoverDrafts(collection, digest.person)
    for (const change of [...changes, ...drafts.map(({ change }) => change)]) session.held.restore(change)
    session.sending.outbox.restore([...changes, ...drafts.map(({ change }) => change)], asides)
    session.recovered.push(...drafts.map(({ field }) => field))
    window.addEventListener('online', () => session.wake())
    void ask(z.array(Told), `/api/collections/${collection}/changes`).then(
      (before) => {
        session.own.begin(before)
        session.changed()
      },
      kept ? () => {} : tellTrouble,
    )
    return session
  }

  get id(): string {
    return this.digest.collection.id
  }
  get records(): Records {
    return this.held.records
  }
  /** Whether this person may change anything here. */
  get mayEdit(): boolean {
    return mayEdit(this.digest)
  }
  mayEditMap(map: string): boolean {
    return mayEditMap(this.digest, map)
  }
  mayCommentOn(map: string): boolean {
    return mayCommentOn(this.digest, map)
  }

  get person(): PersonId {
    return this.digest.person
  }

  /** Whether all of the collection is open to this person. */
  get readsAll(): boolean {
    return this.digest.roles === null
  }

  /** Whether this person may add maps, and change whatever else belongs to the collection as a whole. */
  get mayEditAll(): boolean {
    return this.mayEdit && this.digest.roles === null
  }
  get collection() {
    return this.records.get('collection', this.id) ?? this.digest.collection
  }
  get maps(): readonly MapDigest[] {
    return this.rows.all
  }

  /** The version for those who can wait. */
  readonly calmVersion: Calm<number>

  /** Hears of branches that a change has sent to the other side, for who tells of it. */
  onWent: (went: Evened['went']) => void = () => undefined

  /** Hears of notes in which what this person wrote met what somebody else did. */
  onOverlap: (overlap: Overlap) => void = () => undefined

  /** Hears of what this person wrote and somebody else has put into the trash with what it belongs to. */
  onBuried: (words: BuriedWords) => void = () => undefined

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  private changed(): void {
    this.version++
    this.counts.clear()
    for (const listener of this.listeners) listener()
  }

  /** Changes with everything that a drawn map shows, and not with what is only saved or counted elsewhere. */
  get sceneVersion(): string {
    return `${this.records.revision} ${this.countsVersion}`
  }

  isOpen(map: string): boolean {
    return this.held.openMaps.has(map)
  }

  /** Where the picture of a file can be had in about a width in px; null where the file is not held. */
  pictureAddress = (file: string, width: number): string | null =>
    this.records.get('file', file)?.picture
      ? `/api/collections/${this.id}/files/${file}?width=${Math.ceil(width)}`
      : null

  /** Whether nothing can be known here of a map: it is not open to this person, or never was. Of what was kept that is not known. */
  isShut(map: string): boolean {
    return !this.records.get('map', map) && !this.rows.get(map) && this.shownAsAt === null
  }

  /** Whether a map waits for the server to be reached, as this browser has not kept it. */
  isMissed(map: string): boolean {
    return this.openMaps.missed.has(map)
  }

  /** Title of a map, open or not. */
  titleOf(map: string): string {
    const known = this.records.get('map', map) ?? this.rows.get(map)
    if (known) return known.title || 'Untitled'
    return this.shownAsAt ? 'A map' : 'a map that is not open to you'
  }

  /** Text and map of a topic, held or known as the far end of a link. */
  nameOf(topic: string): { text: string; map: MapId } | null {
    const held = this.records.get('topic', topic)
    if (held) return { text: held.text, map: held.place.map }
    const far = this.held.farTopics.get(topic)
    return far ? { text: far.text, map: far.map } : null
  }

  countTopics = (map: string): number =>
    (this.isOpen(map) ? undefined : this.rows.get(map)?.topics) ?? this.countHeld(map)

  /** Counts of open maps, until something changes. */
  private readonly counts = new Map<string, number>()
  private countHeld(map: string): number {
    let count = this.counts.get(map)
    if (count === undefined) {
      count = 0
      for (const _ of topicsInOrder(this.records, map)) count++
      this.counts.set(map, count)
    }
    return count
  }

  /** Whether a map was made here, and the server has not told of it yet. */
  isMadeHere(map: string): boolean {
    return this.held.isMadeHere('map', map)
  }

  openMap(map: string): Promise<void> {
    return this.openMaps.open(map)
  }

  /** When this browser last heard of what is shown, where that was begun without a connection and none has come yet. */
  get shownAsAt(): Date | null {
    return this.openMaps.shownAsAt
  }

  /** Fetches the templates that were kept in the collection; those made later come along with the other changes. */
  async loadTemplates(): Promise<void> {
    const templates = await ask(z.array(TemplateRecord), `/api/collections/${this.id}/templates`)
    for (const template of templates)
      if (!this.records.get('template', template.id)) this.records.put('template', template)
    this.changed()
  }

  /** Lets a command make a change and carries it out at once; tells the person where it is refused. */
  run(command: (records: Records, newIds: IdSource) => Outcome): TopicId[] | null {
    this.trial.endPreview()
    return this.unlessRefused(() => {
      const { change, select } = command(this.records, newIds)
      return this.performEvened(change) ? select : null
    })
  }

  private unlessRefused<Result>(work: () => Result): Result | null {
    try {
      return work()
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      tell(error.problem.message)
      return null
    }
  }

  /** Shows what a command would do, here alone and until something else happens; null shows things as they are. */
  preview(command: ((records: Records, newIds: IdSource) => Outcome) | null): void {
    if (this.trial.preview(command)) this.changed()
  }

  /** Whether a topic is only shown, by what is previewed. */
  isProposed(topic: string): boolean {
    return this.trial.isProposed(topic)
  }

  /** Adds a topic that is still being written: it is seen here at once and sent when `finishComposing` names it. */
  compose(command: (records: Records, newIds: IdSource) => Outcome): TopicId | null {
    this.trial.endPreview()
    this.finishComposing(null)
    return this.unlessRefused(() => {
      const composed = this.trial.compose(command)
      if ('problem' in composed) {
        tell(composed.problem.message)
        return null
      }
      this.changed()
      return composed.topic
    })
  }

  isComposing(topic: string): boolean {
    return this.trial.isComposing(topic)
  }

  /** Gives the topic being written its text and sends it; null or an empty text takes it away again. */
  finishComposing(text: string | null): boolean {
    const finished = this.trial.finish(text)
    if (finished?.change) return this.performEvened(finished.change)
    if (finished) this.changed()
    return true
  }

  /**
   * Ends the writing in a field: `keep` does what was written and tells whether it could. What could not be done, because what it
   * belongs to is gone, is set aside with its words; null for words that are given up.
   */
  endWriting(field: Field, words: string | null, keep: () => boolean): void {
    const draft = words === null ? null : this.drafts.last(field, words)
    const isKept = keep()
    this.drafts.end(field)
    if (isKept || !draft) return
    this.sending.outbox.setAside(draft, 'What it belongs to has changed or is gone since you began to write.')
    this.changed()
  }

  /** The change that a command would make now, without making it; null where it would make none. */
  wouldBe(command: (records: Records, newIds: IdSource) => Outcome): Change | null {
    try {
      const { change } = command(this.records, newIds)
      return change.edits.length > 0 ? change : null
    } catch (error) {
      if (error instanceof Refusal) return null
      throw error
    }
  }

  /** The change that adds the topic being written with a text; null where that is none. */
  composedAs = (text: string): Change | null => this.trial.composedAs(text)

  /** Carries out a change, lets the sides of its map find their balance, and says which branches went where for that. */
  private performEvened(change: Change): boolean {
    const { change: evened, went } = withEvenSides(this.records, change)
    if (!this.perform(this.withPlaces(evened))) return false
    if (went.length > 0) this.onWent(went)
    return true
  }

  /** With the places that what it brings into a free map or branch takes there. */
  private withPlaces(change: Change): Change {
    return withKeptPlaces(this.records, change, { fonts: fontsHere(), countTopics: this.countTopics })
  }

  private perform(change: Change, send = () => this.sending.outbox.add(change)): boolean {
    this.trial.endPreview()
    if (change.edits.length === 0) return true
    const barred = barredFrom(this.digest, this.records, change)
    if (barred) {
      tell(barred)
      return false
    }
    const performed = this.held.perform(change)
    if (!performed.ok) {
      tell(performed.problem.message)
      return false
    }
    const maps = touchedMaps(this.records, change.edits)
    announce(change.label)
    this.madeHere.add(change.id)
    this.own.note({ ...change, maps: maps === 'all' ? null : [...maps] }, this.shown())
    send()
    this.changed()
    return true
  }

  // ---- Sending -----------------------------------------------------------------------------------------------

  /** How far what was done here is saved; what waits without a connection is waiting, whether it was tried or not. */
  get saved(): Sending['saved'] {
    return this.sending.saved
  }

  /** What could not be saved, with why. */
  get notSaved(): readonly Aside[] {
    return this.sending.outbox.aside
  }

  discardNotSaved(id: string): void {
    this.sending.outbox.discard(id)
  }

  /** Does again what was set aside; where it cannot be done here either, it stays aside. */
  tryNotSaved(id: string): void {
    const aside = this.sending.outbox.aside.find(({ change }) => change.id === id)
    if (aside) this.perform(aside.change, () => this.sending.outbox.again(id))
  }

  /** Resolves when everything made so far has been acknowledged by the server, or set aside. */
  whenSaved(): Promise<void> {
    return new Promise((resolve) => {
      const check = () => {
        if (this.sending.outbox.state.changes > 0) return
        stop()
        resolve()
      }
      const stop = this.subscribe(check)
      check()
    })
  }

  /** A change that does not hold: others, or the server, had something against it. */
  private drop(change: Change, message: string): void {
    this.own.forget(change.id)
    this.held.drop(change.id)
    const ending = change.undoes ? '' : ' It is kept under “not saved”.'
    tellTrouble(new Error(`“${change.label}” could not be saved: ${message}${ending}`))
  }

  private wake(): void {
    this.sending.outbox.wake()
    void this.feed.catchUp().catch(() => {})
  }

  private setConnected(isConnected: boolean): void {
    if (this.isConnected === isConnected) return
    this.isConnected = isConnected
    if (isConnected) {
      this.sending.outbox.wake()
      this.openMaps.again().catch(tellTrouble)
    }
    this.changed()
  }

  // ---- Receiving ---------------------------------------------------------------------------------------------

  private take(changes: ToldChange[]): void {
    for (const change of changes)
      if (this.own.has(change.id) || change.person === this.digest.person) this.own.note(change)
    this.changesHeard += changes.length
    this.keptHere.told(changes)
    const incomplete = this.held.commit(changes)
    for (const map of incomplete) void this.openMap(map).catch(tellTrouble)
    for (const words of this.buried.look(changes)) this.onBuried(words)
    this.changed()
  }

  private takeRows(rows: MapDigest[], number: number): void {
    if (rows.length === 0) return
    if (this.rows.take(rows, number)) this.countsVersion++
    this.keptHere.rows(() => this.rows.all)
    this.changed()
  }

  /** Asks for everything that is held anew: more has happened than is told one by one. */
  private async resync(): Promise<void> {
    const digest = await ask(CollectionDigest, `/api/collections/${this.id}`)
    this.digest = digest
    this.keptHere.digest(digest)
    if (this.rows.replace(digest.maps, digest.number)) this.countsVersion++
    this.feed.caughtUpTo(digest.number)
    this.held.takeCollection(digest.collection, digest.folders)
    for (const map of [...this.held.openMaps])
      if (this.rows.get(map)) await this.openMap(map)
      else {
        this.held.close(map)
        this.keptHere.forgetMap(map)
      }
    this.changed()
  }

  // ---- Jobs --------------------------------------------------------------------------------------------------

  private takeJobs(jobs: ToldJob[]): void {
    for (const { label, state, message } of this.jobs.take(jobs, this.digest.person))
      if (state === 'failed') tellTrouble(new Error(`${label}: ${message}`))
      else tell(state === 'done' ? `${label}: done.` : `${label}: cancelled.`)
    this.changed()
  }

  mayCancel({ person }: ToldJob): boolean {
    return this.mayEditAll || person === this.digest.person
  }

  // ---- Undo and redo -----------------------------------------------------------------------------------------

  /** The maps that this window shows: what is undone next is seen on one of them. Null where it shows none in particular. */
  shown: () => readonly string[] | null = () => null

  get undoable(): { undo: { label: string } | null; redo: { label: string } | null } {
    const shown = this.shown()
    return { undo: this.own.next('undo', shown), redo: this.own.next('redo', shown) }
  }

  /** The last steps that can be undone or redone, the next one first, also those that this window does not show. */
  steps(which: 'undo' | 'redo', most: number): NamedStep[] {
    return this.own.steps(which, this.shown(), most)
  }

  /** Undoes or redoes so many steps, one after the other, as long as each of them can be. */
  async takeBackSteps(which: 'undo' | 'redo', count: number): Promise<void> {
    for (let done = 0; done < count; done++) {
      const next = this.own.next(which, this.shown())?.id
      await this.takeBack(which)
      if (!next || this.own.next(which, this.shown())?.id === next) return
    }
  }

  async takeBack(which: 'undo' | 'redo'): Promise<void> {
    const target = this.own.next(which, this.shown())
    if (!target) return
    const id = ChangeId.parse(uuid())
    const { edits } = target
    if (!edits?.every((edit) => this.records.get(edit.kind, edit.id))) {
      await this.server.command('undo', { change: target.id }, id)
      return
    }
    const { change, leftAlone } = undoChange(this.records, { ...target, edits }, id)
    if (!change) {
      tell('Others have changed all of this since; there is nothing left to take back.')
      this.own.forget(target.id)
      this.changed()
      return
    }
    if (this.perform(change) && leftAlone.length > 0) tell(LEFT_ALONE)
  }
}

const LEFT_ALONE = 'Some of it was changed by others since and stays as it is.'
