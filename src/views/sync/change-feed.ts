import { z } from 'zod'
import type { CommittedChange } from '../../core/changes/edit'
import { ask } from '../app/api'
import { Committed } from './api-schemas'

const Changes = z.array(Committed)

/**
 * The committed changes of a collection in order, each once. One tab of the browser holds the connection to the server
 * and passes changes on to the others (HTTP/1.1 allows six connections to a host); when it closes, another takes over.
 * Gaps are filled by asking for what was missed.
 */
export class ChangeFeed {
  private readonly channel: BroadcastChannel
  private readonly closing = new AbortController()
  private catchingUp = false

  constructor(
    private readonly collection: string,
    /** Number of the last change that was taken over. */
    private seen: number,
    private readonly take: (changes: CommittedChange[]) => void,
    private readonly connected: (isConnected: boolean) => void,
  ) {
    this.channel = new BroadcastChannel(`folvet-changes-${collection}`)
    this.channel.onmessage = ({ data }) => this.receive(Changes.parse(data))
    void navigator.locks
      .request(`folvet-stream-${collection}`, { signal: this.closing.signal }, () => this.lead())
      .catch(() => {})
    void this.catchUp()
  }

  close(): void {
    this.closing.abort()
    this.channel.close()
  }

  /** Asks for changes that may have been missed. */
  async catchUp(): Promise<void> {
    if (this.catchingUp) return
    this.catchingUp = true
    try {
      for (let more = true; more && !this.closing.signal.aborted; ) {
        const missed = await ask(Changes, `/api/collections/${this.collection}/changes?after=${this.seen}`)
        this.hand(missed)
        more = missed.length >= 500
      }
      this.connected(true)
    } catch {
      this.connected(false)
    } finally {
      this.catchingUp = false
    }
  }

  /** Holds the connection until the tab is closed. */
  private lead(): Promise<void> {
    return new Promise((done) => {
      const source = new EventSource(`/api/collections/${this.collection}/stream?since=${this.seen}`)
      source.addEventListener('changes', (event) => {
        const changes = Changes.parse(JSON.parse(event.data))
        this.channel.postMessage(changes)
        this.receive(changes)
      })
      source.onopen = () => this.connected(true)
      source.onerror = () => this.connected(false)
      this.closing.signal.addEventListener('abort', () => {
        source.close()
        done()
      })
    })
  }

  private receive(changes: readonly CommittedChange[]): void {
    const fresh = changes.filter(({ number }) => number > this.seen)
    if (fresh.length === 0) return
    if (fresh[0]!.number === this.seen + 1) this.hand(fresh)
    else void this.catchUp()
  }

  private hand(changes: readonly CommittedChange[]): void {
    const fresh = changes.filter(({ number }) => number > this.seen)
    if (fresh.length === 0) return
    this.seen = fresh.at(-1)!.number
    this.take(fresh)
  }
}
