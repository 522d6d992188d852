import type { MapDigest } from '../../core/records/snapshot'
import { numberOf } from '../collections'
import { type Client, database, prepared } from '../database'
import { log } from '../http/endpoint'
import { digestsAfter } from '../records/digests'
import { changesAfter, type StoredChange } from './commit-changes'

/** Somebody who is told every change of a collection after `seen`, in order, with the edits of those on `maps`. */
export interface Listener {
  readonly collection: string
  readonly person: string
  /** Of their session, hashed: what they are told ends with it. */
  readonly session: Buffer
  readonly maps: ReadonlySet<string>
  /** Number of the last change that they were told, and of the last one of which the digest rows are known to them. */
  seen: number
  rowsSeen: number
  tell(changes: readonly string[], number: number): void
  tellRows(rows: readonly MapDigest[], number: number): void
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
  private reading: Promise<void> | null = null
  private again = false
  private rowsTimer: ReturnType<typeof setTimeout> | null = null

  constructor(readonly collection: string) {}

  /** Tells everybody what is new. Resolves when it is told, also to those who joined meanwhile. */
  wake(): Promise<void> {
    this.again = true
    this.reading ??= this.readAll().finally(() => {
      this.reading = null
    })
    return this.reading
  }

  private async readAll(): Promise<void> {
    while (this.again && this.listeners.size > 0) {
      this.again = false
      const client = await database().connect()
      let broken = true
      try {
        await this.read(client)
        broken = false
      } finally {
        client.release(broken)
      }
    }
  }

  private async read(client: Client): Promise<void> {
    const [, last] = await Promise.all([this.dismiss(client), numberOf(client, this.collection)])
    for (const listener of this.listeners)
      if (listener.seen > last || listener.seen < last - MOST_BEHIND) {
        listener.seen = last
        listener.resync(last)
      }
    const from = Math.min(...[...this.listeners].map(({ seen }) => seen))
    if (this.listeners.size > 0 && from < last) {
      const changes = await changesAfter(client, this.collection, from, AT_ONCE)
      this.hand(changes)
      if (changes.length === AT_ONCE) this.again = true
    }
    this.last = Math.max(this.last, last)
    this.rowsSoon()
  }

  /** Ends those whose session or membership has ended. */
  private async dismiss(client: Client): Promise<void> {
    const asked = [...this.listeners]
    const { rows } = await prepared<{ position: number }>(client, STILL_MAY, [
      this.collection,
      asked.map(({ person }) => person),
      asked.map(({ session }) => session),
    ])
    const may = new Set(rows.map(({ position }) => position - 1))
    asked.forEach((listener, i) => {
      if (!may.has(i)) this.leave(listener)
    })
  }

  leave(listener: Listener): void {
    if (this.listeners.delete(listener)) listener.end()
  }

  /** Each change is written out once, whole and without its edits, for all. */
  private hand(changes: readonly StoredChange[]): void {
    const whole = new Map<number, string>()
    const outline = new Map<number, string>()
    const written = (change: StoredChange, isWhole: boolean) => {
      const texts = isWhole ? whole : outline
      let text = texts.get(change.number)
      if (!text) texts.set(change.number, (text = JSON.stringify(isWhole ? change : { ...change, edits: null })))
      return text
    }
    for (const listener of this.listeners) {
      const fresh = changes.filter(({ number }) => number > listener.seen)
      const newest = fresh.at(-1)
      if (!newest) continue
      listener.seen = newest.number
      listener.tell(
        fresh.map((change) => written(change, isSeenOn(change, listener.maps))),
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
    const behind = [...this.listeners].filter(({ rowsSeen }) => rowsSeen < this.last)
    if (behind.length === 0) return
    const { last } = this
    const from = Math.min(...behind.map(({ rowsSeen }) => rowsSeen))
    const client = await database().connect()
    try {
      const rows = await digestsAfter(client, this.collection, from)
      for (const listener of behind) {
        listener.rowsSeen = last
        // The id of an event is where a reader resumes: never beyond the changes that they have been told.
        if (rows.length > 0) listener.tellRows(rows, Math.min(last, listener.seen))
      }
    } finally {
      client.release()
    }
  }
}

/** Whether something of a change is seen on one of the open maps. */
export const isSeenOn = ({ maps }: StoredChange, open: ReadonlySet<string>): boolean =>
  maps === null || maps.some((map) => open.has(map))

const STILL_MAY = `
  SELECT position FROM unnest($2::uuid[], $3::bytea[]) WITH ORDINALITY AS asked(person, session, position)
  WHERE EXISTS (SELECT 1 FROM membership WHERE person = asked.person AND collection = $1)
    AND EXISTS (SELECT 1 FROM session WHERE token_hash = asked.session AND person = asked.person AND expires_at > now())`
