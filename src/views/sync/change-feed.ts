import { z } from 'zod'
import type { ToldChange } from '../../core/changes/edit'
import { MapDigest, ToldJob } from '../../core/records/snapshot'
import { ApiError, ask } from '../app/api'
import { Told } from './api-schemas'

const Missed = z.object({ changes: z.array(Told), more: z.boolean(), resync: z.boolean(), rows: z.array(MapDigest) })

/** What tabs of one browser tell each other. */
const Message = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('changes'), changes: z.array(Told) }),
  z.object({ kind: z.literal('rows'), rows: z.array(MapDigest), number: z.number() }),
  z.object({ kind: z.literal('resync'), number: z.number() }),
  z.object({ kind: z.literal('jobs'), jobs: z.array(ToldJob) }),
  /** Which maps a tab has open; one that leads asks for it. */
  z.object({ kind: z.literal('open'), tab: z.string(), maps: z.array(z.string()) }),
  z.object({ kind: z.literal('who') }),
])
type Message = z.infer<typeof Message>

export interface Reader {
  take(changes: ToldChange[]): void
  takeRows(rows: MapDigest[], number: number): void
  takeJobs(jobs: ToldJob[]): void
  /** More happened than is told one by one: everything that is held is to be asked for anew. */
  resync(number: number): void
  connected(isConnected: boolean): void
  /** Whoever reads may not any more. */
  refused(error: ApiError): void
}

const FIRST_PAUSE = 1_000
const LONGEST_PAUSE = 30_000

/**
 * The committed changes of a collection in order, each once. One tab of the browser holds the connection to the server
 * and passes on to the others what it hears (HTTP/1.1 allows six connections to a host); when it closes, another takes
 * over. It names the maps that any tab has open, since only of those the edits are told. Gaps are filled by asking for
 * what was missed.
 */
export class ChangeFeed {
  private readonly channel: BroadcastChannel
  private readonly closing = new AbortController()
  private readonly tab = crypto.randomUUID()
  private readonly open = new Set<string>()
  /** Of the tab that leads: the maps of all tabs, and those with which it is connected. */
  private readonly openElsewhere = new Map<string, readonly string[]>()
  private asked: ReadonlySet<string> = new Set()
  private source: EventSource | null = null
  private pause = FIRST_PAUSE
  private catchingUp: Promise<void> | null = null
  private catchingUpNext: Promise<void> | null = null
  /** Number of the last change up to which the digest rows are known: these are told a moment after the changes. */
  private rowsSeen: number

  constructor(
    private readonly collection: string,
    /** Number of the last change that was taken over. */
    private seen: number,
    private readonly reader: Reader,
  ) {
    this.rowsSeen = seen
    this.channel = new BroadcastChannel(`folvet-changes-${collection}`)
    this.channel.onmessage = ({ data }) => this.hear(Message.parse(data))
    void navigator.locks
      .request(`folvet-stream-${collection}`, { signal: this.closing.signal }, () => this.lead())
      .catch(() => {})
    this.catchUp().catch(() => {})
  }

  close(): void {
    this.closing.abort()
    this.channel.close()
  }

  /** Asks for the edits of a map from now on. What comes before they are told is to be found in its snapshot. */
  hold(map: string): void {
    if (this.open.has(map)) return
    this.open.add(map)
    this.say({ kind: 'open', tab: this.tab, maps: [...this.open] })
    this.connectForAll()
  }

  /** Asks for what may have been missed until now: what is being asked already may be older, and is waited for. */
  catchUp(): Promise<void> {
    if (this.catchingUp) {
      this.catchingUpNext ??= this.catchingUp
        .catch(() => {})
        .then(() => {
          this.catchingUpNext = null
          return this.catchUp()
        })
      return this.catchingUpNext
    }
    this.catchingUp = this.fetchMissed().finally(() => {
      this.catchingUp = null
    })
    return this.catchingUp
  }

  private async fetchMissed(): Promise<void> {
    try {
      for (let more = true; more && !this.closing.signal.aborted; ) {
        const from = this.seen
        const missed = await ask(
          Missed,
          `/api/collections/${this.collection}/changes?after=${from}&rows=${this.rowsSeen}&maps=${[...this.open].join('.')}`,
        )
        if (missed.resync) this.reader.resync(from)
        this.hand(missed.changes)
        this.takeRows(missed.rows, missed.changes.at(-1)?.number ?? from)
        more = missed.more
      }
      this.reader.connected(true)
    } catch (error) {
      if (error instanceof ApiError && [401, 403, 404].includes(error.status)) this.reader.refused(error)
      else this.reader.connected(false)
      throw error
    }
  }

  /** Everything up to a number is held already: what comes next is what follows. */
  caughtUpTo(number: number): void {
    this.seen = Math.max(this.seen, number)
    this.rowsSeen = Math.max(this.rowsSeen, number)
  }

  private takeRows(rows: MapDigest[], number: number): void {
    this.rowsSeen = Math.max(this.rowsSeen, number)
    this.reader.takeRows(rows, number)
  }

  // ---- The tab that leads ----------------------------------------------------------------------------------------

  /** Holds the connection until the tab is closed. */
  private lead(): Promise<void> {
    return new Promise((done) => {
      this.say({ kind: 'who' })
      this.connect()
      this.closing.signal.addEventListener('abort', () => {
        this.source?.close()
        done()
      })
    })
  }

  private get wanted(): Set<string> {
    return new Set([...this.open, ...[...this.openElsewhere.values()].flat()])
  }

  private connectForAll(): void {
    if (this.source && [...this.wanted].some((map) => !this.asked.has(map))) this.connect()
  }

  private connect(): void {
    this.source?.close()
    this.asked = this.wanted
    const maps = [...this.asked].join('.')
    const since = `since=${this.seen}&rows=${this.rowsSeen}`
    const source = new EventSource(`/api/collections/${this.collection}/stream?${since}&maps=${maps}`)
    this.source = source
    const on = (kind: string, message: (data: unknown, number: number) => Message) =>
      source.addEventListener(kind, (event: MessageEvent<string>) => {
        const heard = message(JSON.parse(event.data), Number(event.lastEventId))
        this.say(heard)
        this.hear(heard)
      })
    on('changes', (data) => ({ kind: 'changes', changes: z.array(Told).parse(data) }))
    on('maps', (data, number) => ({ kind: 'rows', rows: z.array(MapDigest).parse(data), number }))
    on('jobs', (data) => ({ kind: 'jobs', jobs: z.array(ToldJob).parse(data) }))
    on('resync', (_, number) => ({ kind: 'resync', number }))
    source.onopen = () => {
      this.pause = FIRST_PAUSE
      this.reader.connected(true)
    }
    source.onerror = () => {
      this.reader.connected(false)
      // A browser tries again by itself, but not after an answer that says no.
      if (source.readyState === EventSource.CLOSED) this.connectLater(source)
    }
  }

  /** Asks first what stands against it: who may not read any more is told so, and everything else is tried again. */
  private connectLater(refused: EventSource): void {
    const pause = this.pause * (0.8 + 0.4 * Math.random())
    this.pause = Math.min(this.pause * 2, LONGEST_PAUSE)
    setTimeout(() => {
      if (this.source !== refused || this.closing.signal.aborted) return
      this.catchUp().then(
        () => this.source === refused && this.connect(),
        (error: unknown) => {
          if (!(error instanceof ApiError && [401, 403, 404].includes(error.status))) this.connectLater(refused)
        },
      )
    }, pause)
  }

  // ---- All tabs --------------------------------------------------------------------------------------------------

  private say(message: Message): void {
    this.channel.postMessage(message)
  }

  private hear(message: Message): void {
    if (message.kind === 'changes') this.receive(message.changes)
    else if (message.kind === 'rows') this.takeRows(message.rows, message.number)
    else if (message.kind === 'jobs') this.reader.takeJobs(message.jobs)
    else if (message.kind === 'resync') this.reader.resync(message.number)
    else if (message.kind === 'who') this.say({ kind: 'open', tab: this.tab, maps: [...this.open] })
    else {
      this.openElsewhere.set(message.tab, message.maps)
      this.connectForAll()
    }
  }

  private receive(changes: readonly ToldChange[]): void {
    const fresh = changes.filter(({ number }) => number > this.seen)
    if (fresh.length === 0) return
    if (fresh[0]!.number === this.seen + 1) this.hand(fresh)
    else void this.catchUp().catch(() => {})
  }

  private hand(changes: readonly ToldChange[]): void {
    const fresh = changes.filter(({ number }) => number > this.seen)
    if (fresh.length === 0) return
    this.seen = fresh.at(-1)!.number
    this.reader.take(fresh)
  }
}
