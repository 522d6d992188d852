import { dequal } from 'dequal'
import type { ToldChange } from '../../core/changes/edit'
import { OnceMore } from '../../core/once-more'
import type { MapDigest, ToldJob } from '../../core/records/snapshot'
import { type Reach, reachesAll, strongestOf } from '../../core/rights/grant'
import { openChange, openRows } from '../../core/rights/kept-back'
import { numberOf } from '../collections'
import { changesAfter } from '../commit/history'
import { type Client, database, prepared } from '../database'
import { log } from '../http/endpoint'
import { isFinished, jobsOf } from '../jobs/job-rows'
import { reachesOf } from '../people/rights'
import { digestsAfter } from '../records/digests'

/** Somebody who is told every change of a collection after `seen`, in order, with the edits of those on `maps`. */
export interface Listener {
  readonly collection: string
  readonly person: string
  /** Of their session, hashed: what they are told ends with it. */
  readonly session: Buffer
  readonly maps: ReadonlySet<string>
  /** What was open to them when they were last told something; null before that. */
  reach: Reach | null
  /** Number of the last change that they were told, and of the last one of which the digest rows are known to them. */
  seen: number
  rowsSeen: number
  tell(changes: readonly string[], number: number): void
  tellRows(rows: readonly MapDigest[], number: number): void
  tellJobs(jobs: readonly ToldJob[], number: number): void
  /** What they missed is too much to be told one by one: they ask for everything anew. */
  resync(number: number): void
  /** They may not listen any more. */
  end(): void
}

/** Whoever is further behind is told to ask for everything anew. */
export const MOST_BEHIND = 1_000
/** Most changes that are read at once. */
const AT_ONCE = 200
/** How long digest rows are gathered before they are told, in ms. */
const ROWS_MS = 150

/**
 * The one place of this process that reads the changes of a collection: once for all who listen to it. Notices only wake
 * it; what is told is read from the tables, together with who may still hear it.
 */
export class Room {
  readonly listeners = new Set<Listener>()
  /** The newest change that has been read. */
  last = 0
  private readonly reading = new OnceMore(() => this.readAll())
  private rowsTimer: ReturnType<typeof setTimeout> | null = null
  private jobs: readonly ToldJob[] = []
  private readonly readingJobs = new OnceMore(() => this.readJobs())

  constructor(readonly collection: string) {}

  /** Tells everybody what is new. Resolves when it is told, also to those who joined meanwhile. */
  wake(): Promise<void> {
    return this.reading.ask()
  }

  private async readAll(): Promise<void> {
    if (this.listeners.size === 0) return
    const client = await database().connect()
    let broken = true
    try {
      await this.read(client)
      broken = false
    } finally {
      client.release(broken)
    }
  }

  /** What is open to whom is read last: who may not hear of a change any more when it is told does not. */
  private async read(client: Client): Promise<void> {
    const last = await numberOf(client, this.collection)
    const isBehind = ({ seen }: Listener) => seen > last || seen < last - MOST_BEHIND
    const from = Math.min(...[...this.listeners].flatMap((listener) => (isBehind(listener) ? [] : listener.seen)))
    const changes = from < last ? await changesAfter(client, this.collection, from, AT_ONCE) : []
    const before = await this.dismiss(client)
    for (const [listener, reach] of before)
      if (isBehind(listener) || isOther(listener, reach, last)) {
        listener.seen = last
        listener.resync(last)
      }
    this.hand(changes)
    if (changes.length === AT_ONCE) void this.wake()
    this.last = Math.max(this.last, last)
    this.rowsSoon()
  }

  /** What is open to each of some listeners; null where their session has ended, or nothing is. */
  private async openTo(client: Client, asked: readonly Listener[]): Promise<(Reach | null)[]> {
    const people = asked.map(({ person }) => person)
    const [{ rows }, reaches] = await Promise.all([
      prepared<{ position: number }>(client, STILL_HERE, [people, asked.map(({ session }) => session)]),
      reachesOf(client, this.collection, people),
    ])
    const here = new Set(rows.map(({ position }) => position - 1))
    return reaches.map((reach, i) => (here.has(i) && strongestOf(reach) ? reach : null))
  }

  /** Ends those whose session has ended or to whom nothing of the collection is open any more. Returns the others, with what was open to them before. */
  private async dismiss(client: Client): Promise<Map<Listener, Reach | null>> {
    const asked = [...this.listeners]
    const before = new Map<Listener, Reach | null>()
    for (const [i, reach] of (await this.openTo(client, asked)).entries()) {
      const listener = asked[i]!
      if (!reach) this.leave(listener)
      else {
        before.set(listener, listener.reach)
        const isNew = listener.reach === null
        listener.reach = reach
        if (isNew && this.jobs.length > 0) this.tellJobs(listener)
      }
    }
    return before
  }

  /** Tells how far the jobs of the collection are, to all who may read all of it. */
  wakeJobs(): Promise<void> {
    return this.readingJobs.ask()
  }

  /** Whether a job is under way, so that it is looked after even if no notice comes. */
  get isAtWork(): boolean {
    return this.jobs.some(({ state }) => !isFinished(state))
  }

  /**
   * Whether somebody listens to whom only some maps are open, since which ones can be altered elsewhere; or of whom it is not known yet.
   */
  get isLimited(): boolean {
    return [...this.listeners].some(({ reach }) => reach === null || !reachesAll(reach))
  }

  private async readJobs(): Promise<void> {
    if (this.listeners.size === 0) return
    const jobs = await jobsOf(this.collection)
    if (dequal(jobs, this.jobs)) return
    this.jobs = jobs
    for (const listener of this.listeners) this.tellJobs(listener)
  }

  private tellJobs(listener: Listener): void {
    // Who has not been looked at yet is told when that has been done.
    if (listener.reach && reachesAll(listener.reach)) listener.tellJobs(this.jobs, listener.seen)
  }

  leave(listener: Listener): void {
    if (this.listeners.delete(listener)) listener.end()
  }

  /** Each change is written out once, whole and without its edits, for all. */
  private hand(changes: readonly ToldChange[]): void {
    const whole = new Map<number, string>()
    const outline = new Map<number, string>()
    const written = (change: ToldChange, isWhole: boolean) => {
      const texts = isWhole ? whole : outline
      let text = texts.get(change.number)
      if (!text) texts.set(change.number, (text = JSON.stringify(isWhole ? change : { ...change, edits: null })))
      return text
    }
    for (const listener of this.listeners) {
      const { reach } = listener
      const fresh = changes.filter(({ number }) => number > listener.seen)
      const newest = fresh.at(-1)
      // Who joined while this was read is told with the next reading, when it is known what is open to them.
      if (!newest || !reach) continue
      listener.seen = newest.number
      if (reachesAll(reach))
        listener.tell(
          fresh.map((change) => written(change, isSeenOn(change, listener.maps))),
          newest.number,
        )
      // What concerns all maps may concern some of it, and cannot be told in parts.
      else if (fresh.some(({ maps }) => maps === null)) listener.resync(newest.number)
      else
        listener.tell(
          fresh.map((change) => JSON.stringify(seenOn(openChange(change, listener.person, reach), listener.maps))),
          newest.number,
        )
    }
  }

  private rowsSoon(): void {
    if (this.rowsTimer || ![...this.listeners].some(({ rowsSeen }) => rowsSeen < this.last)) return
    this.rowsTimer = setTimeout(() => {
      this.rowsTimer = null
      this.handRows().catch((error: unknown) => {
        log.warn({ error }, 'digest rows could not be read')
        setTimeout(() => this.rowsSoon(), ROWS_MS * 10)
      })
    }, ROWS_MS)
  }

  private async handRows(): Promise<void> {
    // Of whom it is not known yet what is open to them is told when it is.
    const behind = [...this.listeners].filter(({ rowsSeen, reach }) => rowsSeen < this.last && reach)
    if (behind.length === 0) return
    const { last } = this
    const from = Math.min(...behind.map(({ rowsSeen }) => rowsSeen))
    const client = await database().connect()
    try {
      const rows = await digestsAfter(client, this.collection, from)
      const reaches = await this.openTo(client, behind)
      for (const [i, listener] of behind.entries()) {
        const reach = reaches[i]
        // Who may not hear of it any more is sent away with the next reading.
        if (!reach) continue
        listener.rowsSeen = last
        // The id of an event is where a reader resumes: never beyond the changes that they have been told.
        const open = openRows(rows, reach)
        if (open.length > 0) listener.tellRows(open, Math.min(last, listener.seen))
      }
    } finally {
      client.release()
    }
  }
}

/** Whether something of a change is seen on one of the open maps. */
const isSeenOn = ({ maps }: Pick<ToldChange, 'maps'>, open: ReadonlySet<string>): boolean =>
  maps === null || maps.some((map) => open.has(map))

/**
 * Whether somebody has to ask for everything anew because other maps are open to them than before. Who is limited is told only
 * what happens while they listen: what was open to them at the time of earlier changes is not known any more.
 */
const isOther = ({ reach, seen }: Listener, before: Reach | null, last: number): boolean =>
  before === null ? reach !== null && !reachesAll(reach) && seen < last : !dequal(before, reach)

/** A change as it is told to somebody who has these maps open. */
export const seenOn = <Told extends ToldChange>(change: Told, open: ReadonlySet<string>): Told =>
  isSeenOn(change, open) ? change : { ...change, edits: null }

const STILL_HERE = `
  SELECT position FROM unnest($1::uuid[], $2::bytea[]) WITH ORDINALITY AS asked(person, session, position)
  WHERE EXISTS (SELECT 1 FROM session WHERE token_hash = asked.session AND person = asked.person AND expires_at > now())`
