import { useEffect, useState } from 'react'
import { askFor } from '../app/api'
import { type Aside, Outbox } from '../sync/outbox'
import { sendChanges } from '../sync/send-changes'
import { collectionsUnsent, forgetUnsent, keepUnsent, nextOrder, unsentOf } from '../sync/unsent'

/** What of a collection was not sent: what still is to be, and what was set aside. */
export interface Unsent {
  waiting: number
  aside: readonly Aside[]
  /** Gives up something that was set aside. */
  discard(change: string): void
}

/** Sends what this person could not send before, whichever collection it belongs to, and tells what is left of each, by its id. */
export function useUnsent(person: string): ReadonlyMap<string, Unsent> {
  const [left, setLeft] = useState<ReadonlyMap<string, Unsent>>(new Map())
  useEffect(() => {
    let isHere = true
    const outboxes: Outbox[] = []
    const send = async (collection: string) => {
      const { changes, asides } = await unsentOf(collection, person)
      if (!isHere) return
      const changed = () => {
        const discard = (change: string) => outbox.discard(change)
        const now = { waiting: outbox.state.changes, aside: [...outbox.aside], discard }
        setLeft((before) => new Map(before).set(collection, now))
      }
      const outbox = new Outbox({
        // Who has gone on to a collection sends it from there.
        send: (batch, whole) =>
          isHere ? sendChanges(collection, batch, whole) : Promise.resolve({ kind: 'signed out' }),
        keep: (change, aside) => {
          void keepUnsent({ collection, person, order: nextOrder(), change, aside }).catch(() => {})
        },
        forget: (change) => void forgetUnsent(change).catch(() => {}),
        committed: changed,
        dropped: changed,
        changed,
        wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
      })
      outboxes.push(outbox)
      outbox.restore(changes, asides)
      changed()
    }
    const wake = () => {
      for (const outbox of outboxes) outbox.wake()
    }
    askFor(person)
    void collectionsUnsent(person).then((collections) => Promise.all(collections.map(send)))
    window.addEventListener('online', wake)
    return () => {
      isHere = false
      window.removeEventListener('online', wake)
    }
  }, [person])
  return left
}
