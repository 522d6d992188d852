import { dequal } from 'dequal/lite'
import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import type { Change, CommittedChange } from '../../core/changes/edit'
import { Refusal } from '../../core/changes/problem'
import { undoChange, undoLists } from '../../core/changes/undo'
import { type IdSource, named, type Outcome } from '../../core/commands/command'
import { withEvenSides } from '../../core/commands/even-out-sides'
import { ChangeId, type MapId, type TopicId } from '../../core/records/ids'
import type { Records } from '../../core/records/records'
import { CollectionDigest, type MapDigest } from '../../core/records/snapshot'
import { TemplateRecord } from '../../core/records/template'
import { topicsInOrder } from '../../core/tree/walk'
import { ask, tell, tellTrouble } from '../app/api'
import { Calm } from '../app/calm'
import { CommandAnswer, CommitAnswer, Committed, HeldSnapshot } from './api-schemas'
import { ChangeFeed } from './change-feed'
import { HeldState } from './held-state'
import { forgetUnsent, keepUnsent, unsentOf } from './unsent'

export type Saved = { state: 'saved' } | { state: 'saving' } | { state: 'waiting'; changes: number }

const newIds: IdSource = { newId: uuid }

const RETRY_MS = 1_500
const BATCH = 50

/**
 * A person's work on one collection in this tab: what is held, what is not yet sent, undo and redo, and everything
 * that others do. Views read from it and are told when something changed; they alter it only through `run`.
 */
export class CollectionSession {
  private readonly held = new HeldState()
  private readonly listeners = new Set<() => void>()
  private readonly unacknowledged: Change[] = []
  private own: Change[] = []
  private feed: ChangeFeed | null = null
  private sending = false
  private reachable = true
  private composing: Change | null = null
  private previewed: Change | null = null
  private digestTimer: ReturnType<typeof setTimeout> | undefined
  /** Grows with every change of what is held; views compare it. */
  version = 0
  /** Grows with the counts of maps that are not open. */
  private countsVersion = 0

  private constructor(private digest: CollectionDigest) {
    this.calmVersion = new Calm(
      (listener) => this.subscribe(listener),
      () => this.version,
    )
  }

  static async start(collection: string): Promise<CollectionSession> {
    const digest = await ask(CollectionDigest, `/api/collections/${collection}`)
    const session = new CollectionSession(digest)
    session.held.records.put('collection', digest.collection)
    for (const change of await unsentOf(collection, digest.person)) session.unacknowledged.push(change)
    void session.send()
    const take = (changes: CommittedChange[]) => session.take(changes)
    session.feed = new ChangeFeed(collection, digest.number, take, (connected) => session.setReachable(connected))
    window.addEventListener('online', () => session.wake())
    void ask(z.array(Committed), `/api/collections/${collection}/changes`).then((changes) => {
      const known = new Set(changes.map(({ id }) => id))
      session.own = [...changes, ...session.own.filter(({ id }) => !known.has(id))]
      session.changed()
    }, tellTrouble)
    return session
  }

  get id(): string {
    return this.digest.collection.id
  }
  get records(): Records {
    return this.held.records
  }
  get mayEdit(): boolean {
    return this.digest.role === 'owner' || this.digest.role === 'editor'
  }
  get collection() {
    return this.records.get('collection', this.id) ?? this.digest.collection
  }
  get maps(): readonly MapDigest[] {
    return this.digest.maps
  }

  /** The version for those who can wait. */
  readonly calmVersion: Calm<number>

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

  /** Title of a map, open or not. */
  titleOf(map: string): string {
    return (this.records.get('map', map) ?? this.digest.maps.find(({ id }) => id === map))?.title ?? 'a map'
  }

  /** Text and map of a topic, held or known as the far end of a link. */
  nameOf(topic: string): { text: string; map: MapId } | null {
    const held = this.records.get('topic', topic)
    if (held) return { text: held.text, map: held.place.map }
    const far = this.held.farTopics.get(topic)
    return far ? { text: far.text, map: far.map } : null
  }

  countTopics = (map: string): number => {
    if (!this.isOpen(map)) return this.digest.maps.find(({ id }) => id === map)?.topics ?? this.countHeld(map)
    return this.countHeld(map)
  }
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

  async openMap(map: string): Promise<void> {
    const snapshot = await ask(HeldSnapshot, `/api/collections/${this.id}/maps/${map}`)
    this.held.open(snapshot)
    this.changed()
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
    this.endPreview()
    try {
      const { change, select } = command(this.records, newIds)
      return this.perform(withEvenSides(this.records, change)) ? select : null
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      tell(error.problem.message)
      return null
    }
  }

  /** Shows what a command would do, here alone and until something else happens; null shows things as they are. */
  preview(command: ((records: Records, newIds: IdSource) => Outcome) | null): void {
    const ended = this.endPreview()
    try {
      const { change } = command?.(this.records, newIds) ?? { change: null }
      if (change && this.held.perform(change).ok) {
        this.previewed = change
        for (const edit of change.edits) if (edit.kind === 'topic' && edit.before === null) this.proposed.add(edit.id)
      }
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
    }
    if (ended || this.previewed) this.changed()
  }

  /** Whether a topic is only shown, by what is previewed. */
  isProposed(topic: string): boolean {
    return this.proposed.has(topic)
  }
  private readonly proposed = new Set<string>()

  private endPreview(): boolean {
    if (!this.previewed) return false
    this.held.drop(this.previewed.id)
    this.previewed = null
    this.proposed.clear()
    return true
  }

  /** Adds a topic that is still being written: it is seen here at once and sent when `finishComposing` names it. */
  compose(command: (records: Records, newIds: IdSource) => Outcome): TopicId | null {
    this.endPreview()
    this.finishComposing(null)
    try {
      const { change, select } = command(this.records, newIds)
      const performed = this.held.perform(change)
      if (!performed.ok) {
        tell(performed.problem.message)
        return null
      }
      this.composing = change
      this.changed()
      return select[0] ?? null
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      tell(error.problem.message)
      return null
    }
  }

  isComposing(topic: string): boolean {
    return (
      this.composing?.edits.some((edit) => edit.kind === 'topic' && edit.before === null && edit.id === topic) ?? false
    )
  }

  /** Gives the topic being written its text and sends it; null or an empty text takes it away again. */
  finishComposing(text: string | null): void {
    const change = this.composing
    if (!change) return
    this.composing = null
    this.held.drop(change.id)
    if (text !== null && text.trim() !== '') {
      const edits = change.edits.map((edit) =>
        edit.kind === 'topic' && edit.before === null ? { ...edit, after: { ...edit.after, text } } : edit,
      )
      this.perform(withEvenSides(this.records, { ...change, label: `Add ${named(text)}`, edits }))
    } else this.changed()
  }

  private perform(change: Change): boolean {
    this.endPreview()
    if (change.edits.length === 0) return true
    if (!this.mayEdit) {
      tell('Your role in this collection allows reading only.')
      return false
    }
    const performed = this.held.perform(change)
    if (!performed.ok) {
      tell(performed.problem.message)
      return false
    }
    this.own.push(change)
    this.unacknowledged.push(change)
    void keepUnsent({
      collection: this.id,
      person: this.digest.person,
      order: performance.timeOrigin + performance.now(),
      change,
    }).catch(() => {})
    this.changed()
    void this.send()
    return true
  }

  // ---- Sending -----------------------------------------------------------------------------------------------

  get saved(): Saved {
    if (this.unacknowledged.length === 0) return { state: 'saved' }
    return this.reachable ? { state: 'saving' } : { state: 'waiting', changes: this.unacknowledged.length }
  }

  /** Resolves when everything made so far has been acknowledged by the server. */
  whenSaved(): Promise<void> {
    return new Promise((resolve) => {
      const check = () => {
        if (this.unacknowledged.length > 0) return
        stop()
        resolve()
      }
      const stop = this.subscribe(check)
      check()
    })
  }

  private async send(): Promise<void> {
    if (this.sending) return
    this.sending = true
    try {
      while (this.unacknowledged.length > 0) {
        const changes = this.unacknowledged.slice(0, BATCH)
        const { results } = await ask(CommitAnswer, `/api/collections/${this.id}/changes`, {
          method: 'POST',
          body: { changes },
        })
        this.reachable = true
        for (const result of results) this.acknowledge(result)
        this.changed()
      }
    } catch (error) {
      this.retryAfter(error)
    } finally {
      this.sending = false
    }
  }

  private acknowledge(result: z.infer<typeof CommitAnswer>['results'][number]): void {
    const id = result.ok ? result.change.id : result.id
    this.unacknowledged.splice(
      0,
      this.unacknowledged.length,
      ...this.unacknowledged.filter((change) => change.id !== id),
    )
    void forgetUnsent(id).catch(() => {})
    if (result.ok) {
      this.own = this.own.map((change) => (change.id === id ? result.change : change))
      return
    }
    const refused = this.own.find((change) => change.id === id)
    this.own = this.own.filter((change) => change.id !== id)
    this.held.drop(id)
    this.keepWords(refused)
    tellTrouble(new Error(`“${refused?.label ?? 'A change'}” could not be kept: ${result.problem.message}`))
  }

  /** What somebody wrote in a change that was refused goes to the clipboard rather than getting lost. */
  private keepWords(change: Change | undefined): void {
    const words = change?.edits
      .flatMap((edit) => ('text' in edit.after && typeof edit.after.text === 'string' ? [edit.after.text] : []))
      .join('\n')
    if (words)
      void navigator.clipboard?.writeText(words).then(
        () => tell('Your words were put on the clipboard.'),
        () => {},
      )
  }

  private retryAfter(error: unknown): void {
    this.reachable = false
    this.changed()
    if (
      error instanceof Error &&
      'status' in error &&
      (error.status === 401 || error.status === 403 || error.status === 404)
    ) {
      tellTrouble(error)
      return
    }
    setTimeout(() => void this.send(), RETRY_MS)
  }

  private wake(): void {
    void this.send()
    void this.feed?.catchUp()
  }

  private setReachable(connected: boolean): void {
    if (connected && !this.reachable) void this.send()
    if (!connected && this.reachable && this.unacknowledged.length === 0) return
    if (this.reachable === connected) return
    this.reachable = connected
    this.changed()
  }

  // ---- Receiving ---------------------------------------------------------------------------------------------

  private take(changes: CommittedChange[]): void {
    for (const change of changes) {
      const known = this.own.findIndex(({ id }) => id === change.id)
      if (known >= 0) this.own[known] = change
      else if (change.person === this.digest.person) this.own.push(change)
    }
    const incomplete = this.held.commit(changes)
    for (const map of incomplete) void this.openMap(map).catch(tellTrouble)
    this.refreshDigestSoon()
    this.changed()
  }

  private countsElsewhere({ maps }: CollectionDigest): [string, number][] {
    return maps.filter(({ id }) => !this.isOpen(id)).map(({ id, topics }) => [id, topics])
  }

  private refreshDigestSoon(): void {
    clearTimeout(this.digestTimer)
    this.digestTimer = setTimeout(() => {
      ask(CollectionDigest, `/api/collections/${this.id}`).then(
        (digest) => {
          if (!dequal(this.countsElsewhere(digest), this.countsElsewhere(this.digest))) this.countsVersion++
          this.digest = digest
          this.changed()
        },
        () => {},
      )
    }, 300)
  }

  // ---- Undo and redo -----------------------------------------------------------------------------------------

  get undoable(): { undo: Change | null; redo: Change | null } {
    const { undo, redo } = undoLists(this.own)
    return { undo: undo.at(-1) ?? null, redo: redo.at(-1) ?? null }
  }

  async takeBack(which: 'undo' | 'redo'): Promise<void> {
    const target = this.undoable[which]
    if (!target) return
    const id = ChangeId.parse(uuid())
    if (!target.edits.every((edit) => this.records.get(edit.kind, edit.id))) {
      await this.command('undo', { change: target.id, id })
      return
    }
    const { change, leftAlone } = undoChange(this.records, target, id)
    if (!change) {
      tell('Others have changed all of this since; there is nothing left to take back.')
      this.own = this.own.filter((own) => own.id !== target.id)
      this.changed()
      return
    }
    if (this.perform(change) && leftAlone.length > 0) tell('Some of it was changed by others since and stays as it is.')
  }

  /** Runs a command on the server, which knows the whole collection. */
  async command(name: string, args: unknown): Promise<z.infer<typeof CommandAnswer> | null> {
    try {
      const answer = await ask(CommandAnswer, `/api/collections/${this.id}/commands/${name}`, {
        method: 'POST',
        body: args,
      })
      if (!this.own.some(({ id }) => id === answer.change.id)) this.own.push(answer.change)
      await this.feed?.catchUp()
      return answer
    } catch (error) {
      tellTrouble(error)
      return null
    }
  }
}
