import type { Change } from '../../core/changes/edit'
import { OnceMore } from '../../core/once-more'
import type { AnsweredChange } from './api-schemas'

type Result =
  | { ok: true; change: AnsweredChange }
  | { ok: false; id: string; problem: { code: string; message: string } }

/** How one try to send ended: with a result for each change, or with an answer for all of them. */
export type Sent =
  | { kind: 'results'; results: readonly Result[] }
  /** Not for good: the server is away, or busy, or asks to wait; or the line was too slow for so much. */
  | { kind: 'later'; isSlow?: boolean }
  /** The server failed over it, which it may do again. */
  | { kind: 'failed'; message: string }
  /** An answer that will not change, however often this is sent: too large, or not to be understood. */
  | { kind: 'never'; message: string }
  /** Nobody is signed in here any more. */
  | { kind: 'signed out' }

/** What the outbox does with the world. */
export interface Post {
  /** Sends changes: those of `whole` with all of their texts, of the others what differs is enough. */
  send(changes: readonly Change[], whole: ReadonlySet<string>): Promise<Sent>
  /** Keeps a change beyond this tab, with why it was set aside, and lets it go. */
  keep(change: Change, aside: string | null): void
  forget(id: string): void
  /** A change is committed; in the form in which it was stored, and as it was sent. */
  committed(change: AnsweredChange, sent: Change): void
  /** A change was set aside: it does not hold here any more. */
  dropped(change: Change, message: string): void
  /** What can be read here has changed. */
  changed(): void
  wait(ms: number): Promise<void>
}

export interface Aside {
  change: Change
  message: string
}

/** Most changes of one request, and most letters of them as they travel; one change alone may be larger. */
const MOST_CHANGES = 50
const MOST_LETTERS = 1_000_000
/** Pauses before trying again grow from the first to the second, in ms. */
const FIRST_PAUSE = 1_000
const LONGEST_PAUSE = 30_000
/** How often the server may fail over one change alone before it is set aside. */
const MOST_FAILURES = 4

/**
 * The changes of this person that the server has not acknowledged, in order. They are sent until they are, in batches; one
 * that the server refuses, or will never take, is set aside and told, and the rest goes on.
 */
export class Outbox {
  private readonly waiting: { change: Change; letters: number }[] = []
  private readonly asides: Aside[] = []
  private readonly sending = new OnceMore(() => this.sendAll())
  private pause = FIRST_PAUSE
  private wakeUp: (() => void) | null = null
  private isAway = false
  private isSignedOut = false
  /** How many changes are sent at once: fewer while the line is slow. */
  private most = MOST_CHANGES
  /** Changes that are sent alone, because a batch with them was not taken, with how often the server failed over each. */
  private readonly alone = new Map<string, number>()

  /** Changes to be sent with all of their texts, because others have written there. */
  private readonly whole = new Set<string>()

  constructor(private readonly post: Post) {}

  /** Whether everything is saved, is being saved, slowly perhaps, or waits for the server; `changes` are how many. */
  get state(): { state: 'saved' | 'saving' | 'slow' | 'waiting' | 'signed out'; changes: number } {
    const changes = this.waiting.length
    if (changes === 0) return { state: 'saved', changes }
    if (this.isSignedOut) return { state: 'signed out', changes }
    return { state: this.isAway ? 'waiting' : this.most < MOST_CHANGES ? 'slow' : 'saving', changes }
  }

  /** What could not be saved, with why. */
  get aside(): readonly Aside[] {
    return this.asides
  }

  add(change: Change): void {
    this.post.keep(change, null)
    this.enter(change)
    void this.run()
  }

  /** Takes over what was kept from before; it is there already, and is sent with the rest. */
  restore(changes: readonly Change[], asides: readonly Aside[]): void {
    for (const change of changes) this.enter(change)
    this.asides.push(...asides)
    void this.run()
  }

  private enter(change: Change): void {
    this.waiting.push({ change, letters: JSON.stringify(change).length })
  }

  /** Tries at once, instead of after the pause: the server can be reached again, or the person asks. */
  wake(): void {
    this.isSignedOut = false
    this.pause = FIRST_PAUSE
    this.wakeUp?.()
    void this.run()
  }

  /** Sends again what was set aside. It is kept all the while. */
  again(id: string): void {
    const at = this.asides.findIndex(({ change }) => change.id === id)
    const [aside] = at < 0 ? [] : this.asides.splice(at, 1)
    if (aside) this.add(aside.change)
  }

  /** Gives up something that was set aside. */
  discard(id: string): void {
    const at = this.asides.findIndex(({ change }) => change.id === id)
    if (at < 0) return
    this.asides.splice(at, 1)
    this.post.forget(id)
    this.post.changed()
  }

  /** Sends everything; resolves when nothing is left to be sent. */
  run(): Promise<void> {
    return this.sending.ask()
  }

  private async sendAll(): Promise<void> {
    while (this.waiting.length > 0 && !this.isSignedOut) {
      const batch = this.batch()
      const sent = await this.post.send(batch, this.whole).catch((): Sent => ({ kind: 'later' }))
      this.take(batch, sent)
      this.post.changed()
      if (this.isAway) await this.rest()
    }
  }

  private batch(): Change[] {
    const batch: Change[] = []
    let letters = 0
    for (const { change, letters: more } of this.waiting) {
      const isAlone = this.alone.has(change.id)
      if (batch.length > 0 && (isAlone || batch.length === this.most || letters + more > MOST_LETTERS)) break
      batch.push(change)
      letters += more
      if (isAlone) break
    }
    return batch
  }

  private take(batch: readonly Change[], sent: Sent): void {
    // What was too much for the line is tried again at once, by halves.
    const isTooMuch = sent.kind === 'later' && sent.isSlow === true && batch.length > 1
    if (isTooMuch) this.most = Math.ceil(batch.length / 2)
    this.isAway = sent.kind === 'later' && !isTooMuch
    if (sent.kind === 'signed out') this.isSignedOut = true
    else if (sent.kind === 'results') {
      this.pause = FIRST_PAUSE
      this.most = Math.min(this.most * 2, MOST_CHANGES)
      for (const result of sent.results) this.settle(result)
    } else if (sent.kind !== 'later') this.apart(batch, sent)
  }

  private settle(result: Result): void {
    const id = result.ok ? result.change.id : result.id
    const at = this.waiting.findIndex(({ change }) => change.id === id)
    if (at < 0) return
    if (!result.ok && result.problem.code === 'unread' && !this.whole.has(id)) {
      this.whole.add(id)
      return
    }
    const [waited] = this.waiting.splice(at, 1)
    const sent = waited!.change
    this.alone.delete(id)
    this.whole.delete(id)
    if (result.ok) {
      this.post.forget(id)
      this.post.committed(result.change, sent)
    } else if (sent.undoes) {
      // Nothing that was written is in it, but what was there before.
      this.post.forget(id)
      this.post.dropped(sent, result.problem.message)
    } else this.setAside(sent, result.problem.message)
  }

  /** What is refused, by the server or before it was sent, is not forgotten: it is kept, with why, until the person has done something with it. */
  setAside(change: Change, message: string): void {
    this.asides.push({ change, message })
    this.post.keep(change, message)
    this.post.dropped(change, message)
  }

  /** A batch that is not taken is sent one by one; a change that is not taken alone is set aside. */
  private apart(batch: readonly Change[], sent: { kind: 'failed' | 'never'; message: string }): void {
    const [only] = batch
    if (!only || batch.length > 1) {
      for (const { id } of batch) this.alone.set(id, this.alone.get(id) ?? 0)
      return
    }
    const failures = (this.alone.get(only.id) ?? 0) + 1
    this.alone.set(only.id, failures)
    if (sent.kind === 'failed' && failures < MOST_FAILURES) {
      this.isAway = true
      return
    }
    this.alone.delete(only.id)
    this.waiting.splice(
      this.waiting.findIndex(({ change }) => change.id === only.id),
      1,
    )
    this.setAside(only, sent.message)
  }

  private async rest(): Promise<void> {
    await Promise.race([
      this.post.wait(this.pause * (0.8 + 0.4 * Math.random())),
      new Promise<void>((resolve) => {
        this.wakeUp = resolve
      }),
    ])
    this.wakeUp = null
    this.pause = Math.min(this.pause * 2, LONGEST_PAUSE)
  }
}
