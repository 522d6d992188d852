import type { IncomingMessage } from 'node:http'
import { Failure } from './failure'
import { isSecure } from './public-address'

/** How long a sender may fall silent in the middle of a body, in ms. */
const STALL_MS = 30_000
/** A body that is too large is read on, and dropped, up to so many times what is taken: only then its sender reads why. */
const MOST_DROPPED = 5
const TOO_SLOW = 'The rest of this did not arrive. Please try again.'
const BROKEN_OFF = 'This was broken off before all of it was here.'

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

  /** The whole body, of which no more than `most` bytes are kept; null where there are more, which are read and dropped. */
  whole(most: number): Promise<Buffer | null> {
    const { incoming } = this
    const pieces: Buffer[] = []
    let length = 0
    if (Number(this.header('content-length') ?? 0) > most * MOST_DROPPED) return Promise.resolve(null)
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => {
        incoming.destroy()
        reject(new Failure(408, TOO_SLOW))
      }, STALL_MS)
      incoming.on('data', (piece: Buffer) => {
        timer.refresh()
        length += piece.length
        if (length <= most) pieces.push(piece)
        else pieces.length = 0
        if (length > most * MOST_DROPPED) {
          clearTimeout(timer)
          incoming.pause()
          resolve(null)
        }
      })
      incoming.on('end', () => {
        clearTimeout(timer)
        resolve(length > most ? null : pieces.length === 1 ? pieces[0]! : Buffer.concat(pieces))
      })
      incoming.on('error', () => {
        clearTimeout(timer)
        reject(new Failure(400, BROKEN_OFF))
      })
    })
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
      if (stalled) throw new Failure(408, TOO_SLOW)
      if (incoming.aborted) throw new Failure(400, BROKEN_OFF)
      throw error
    } finally {
      clearTimeout(timer)
    }
  }
}
