import { ApiError, ask } from '../app/api'
import { HeldSnapshot } from './api-schemas'
import type { ChangeFeed } from './change-feed'
import type { HeldState } from './held-state'
import type { KeptHere } from './kept-here'

/** How long until a map that is shown as it was kept is asked for anew, in ms; longer each time. */
const FIRST_PAUSE_MS = 2_000
const LONGEST_PAUSE_MS = 60_000

/** What opening a map needs of the session. */
interface Around {
  readonly id: string
  held: HeldState
  keptHere: KeptHere
  feed(): ChangeFeed
  /** The number of the last change when the session was last told everything anew. */
  number(): number
  isConnected(): boolean
  /** Whether nothing can be known here of a map. */
  isShut(map: string): boolean
  whenSaved(): Promise<void>
  changed(): void
}

/** How maps come to be held: from the server, from what was made here, or as this browser kept them. */
export class OpenMaps {
  /** When this browser last heard of what is shown, where that was begun without a connection and none has come yet. */
  shownAsAt: Date | null = null

  /** Maps that were asked for while the server could not be reached, and that this browser has not kept. */
  readonly missed = new Set<string>()

  constructor(private readonly around: Around) {}

  /** Asks for all that is not as the server knows it, now that it can be reached. Resolves when all has been asked for; throws what went wrong first. */
  async again(): Promise<void> {
    this.shownAsAt = null
    const maps = new Set([...this.around.held.staleMaps, ...this.missed])
    this.missed.clear()
    await Promise.all([...maps].map((map) => this.open(map)))
  }

  async open(map: string): Promise<void> {
    const { id, held, keptHere } = this.around
    const feed = this.around.feed()
    if (held.isMadeHere('map', map)) {
      // What was made here is known here first: it is shown from that, and asked for when the server knows it too.
      feed.hold(map)
      held.openMaps.add(map)
      this.around.changed()
      await this.around.whenSaved()
      if (this.around.isShut(map)) {
        // It was refused.
        held.close(map)
        return this.around.changed()
      }
    }
    // What is told from now on tells of this map too; what was told before is in the snapshot.
    feed.hold(map)
    let copy: Response | null = null
    const copyTo = (answer: Response) => {
      copy = answer
    }
    const look = () => ask(HeldSnapshot, `/api/collections/${id}/maps/${map}`, { copyTo })
    try {
      let snapshot = await look()
      // One that the page asked for ahead can be older than what is told from now on.
      if (snapshot.number < this.around.number()) snapshot = await look()
      if (copy) keptHere.map(map, copy)
      const incomplete = held.open(snapshot)
      if (this.around.isConnected() && held.staleMaps.length === 0) this.shownAsAt = null
      this.around.changed()
      for (const other of incomplete) await this.open(other)
    } catch (error) {
      await this.openKept(map, error)
    }
  }

  /** Shows a map as it was kept, where the server cannot be reached, until it can; without that it is missed. Any other `error` is thrown. */
  private async openKept(map: string, error: unknown): Promise<void> {
    const { held, keptHere } = this.around
    if (error instanceof ApiError && error.status === 404) keptHere.forgetMap(map)
    if (!(error instanceof TypeError) || held.openMaps.has(map)) throw error
    const kept = await keptHere.mapKept(map).catch(() => null)
    if (!kept) {
      this.missed.add(map)
      this.around.changed()
      return
    }
    held.openKept(kept)
    this.shownAsAt ??= new Date()
    this.around.changed()
    void this.askAnew(map)
  }

  /** Asks for a map that is shown as it was kept until the server has told of it, also where only this one answer was lost. */
  private async askAnew(map: string): Promise<void> {
    const isStale = () => this.around.held.staleMaps.includes(map)
    for (let pause = FIRST_PAUSE_MS; isStale(); pause = Math.min(2 * pause, LONGEST_PAUSE_MS)) {
      await new Promise((resolve) => setTimeout(resolve, pause))
      if (this.around.isConnected() && isStale()) await this.open(map).catch(() => {})
    }
  }
}
