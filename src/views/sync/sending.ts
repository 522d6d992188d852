import type { Change } from '../../core/changes/edit'
import type { AnsweredChange } from './api-schemas'
import { Outbox } from './outbox'
import { sendChanges } from './send-changes'
import { forgetUnsent, keepUnsent, nextOrder } from './unsent'

/** What a session does with what became of its changes, and what sending needs to know of it. */
interface Sender {
  committed(change: AnsweredChange, sent: Change): void
  dropped(change: Change, message: string): void
  changed(): void
  isConnected(): boolean
}

/** The outbox of a session, with what this browser keeps of it, and how far all of that is. */
export class Sending {
  readonly outbox: Outbox
  /** Changes that are being written into this browser's storage. */
  private beingKept = 0
  /** Changes that are on their way and could not be kept, by their ids: this window alone has them. */
  private readonly unkept = new Set<string>()

  constructor(
    collection: string,
    person: string,
    private readonly sender: Sender,
  ) {
    this.outbox = new Outbox({
      send: (changes, whole) => sendChanges(collection, changes, whole),
      keep: (change, aside) => {
        void this.keeping(change.id, keepUnsent({ collection, person, order: nextOrder(), change, aside }))
      },
      forget: (change) => {
        this.unkept.delete(change)
        void forgetUnsent(change).catch(() => {})
      },
      committed: (change, sent) => sender.committed(change, sent),
      dropped: (change, message) => sender.dropped(change, message),
      changed: () => sender.changed(),
      wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
    })
  }

  private async keeping(change: string, kept: Promise<void>): Promise<void> {
    this.beingKept++
    // A browser that keeps nothing does not keep the person from going on; it is told.
    await kept.catch(() => this.unkept.add(change))
    const isLast = --this.beingKept === 0
    if (isLast && (this.unkept.size > 0 || this.saved.state === 'waiting')) this.sender.changed()
  }

  /** How far what was done here is saved; what waits without a connection is waiting, whether it was tried or not. */
  get saved(): { state: Outbox['state']['state'] | 'not kept'; changes: number } {
    const { state: sending, changes } = this.outbox.state
    const isOnItsWay = sending === 'saving' || sending === 'slow'
    const state = isOnItsWay && !this.sender.isConnected() ? 'waiting' : sending
    if (state === 'saved') return { state, changes }
    // That it is kept here is said when it is: whoever reads that may close the window.
    if (this.beingKept > 0) return { state: 'saving', changes }
    return {
      state: this.unkept.size > 0 && (state === 'waiting' || state === 'signed out') ? 'not kept' : state,
      changes,
    }
  }
}
