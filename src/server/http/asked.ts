import type { IncomingMessage } from 'node:http'
import { Failure } from './failure'
import { isSecure } from './public-address'

/** How long a sender may fall silent in the middle of a body, in ms. */
const STALL_MS = 30_000

/** A request as it arrived. Its body is read only by who asks for it, as fast as they take it. */
export class Asked {
  readonly method: string
  private aborted: AbortSignal | null = null

  constructor(
    private readonly incoming: IncomingMessage,
    readonly url: URL,
    /** The network address from which it came. */
    readonly from: string,
  ) {
    this.method = incoming.method ?? 'GET'
  }

  header(name: string): string | null {
    const value = this.incoming.headers[name]
    return (Array.isArray(value) ? value.join(', ') : value) ?? null
  }

  /** Whether it alters nothing. */
  get isReading(): boolean {
    return this.method === 'GET' || this.method === 'HEAD'
  }

  /** Whether the browser came by https, so that its cookies must never travel without. */
  get secure(): boolean {
    return isSecure(this.header('host') ?? '')
  }

  /** Aborted when whoever asked has gone. */
  get gone(): AbortSignal {
    if (!this.aborted) {
      const controller = new AbortController()
      const { socket } = this.incoming
      if (socket.destroyed) controller.abort()
      else socket.once('close', () => controller.abort())
      this.aborted = controller.signal
    }
    return this.aborted
  }

  /** The body, piece by piece. Ends with a Failure where the sender falls silent or breaks off. */
  async *bytes(): AsyncGenerator<Uint8Array> {
    const { incoming } = this
    let stalled = false
    const timer = setTimeout(() => {
      stalled = true
      incoming.destroy()
    }, STALL_MS)
    try {
      for await (const piece of incoming) {
        timer.refresh()
        yield piece as Buffer
        timer.refresh()
      }
    } catch (error) {
      if (stalled) throw new Failure(408, 'The rest of this did not arrive. Please try again.')
      if (incoming.aborted) throw new Failure(400, 'This was broken off before all of it was here.')
      throw error
    } finally {
      clearTimeout(timer)
    }
  }
}
