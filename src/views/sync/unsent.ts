import { createStore, del, entries, set } from 'idb-keyval'
import type { Change } from '../../core/changes/edit'
import type { Aside } from './outbox'

/** Changes that the server has not acknowledged, kept by the browser so that a closed tab or lost power loses nothing. */
const store = () => createStore('folvet-unsent', 'changes')

interface Kept {
  collection: string
  person: string
  order: number
  change: Change
  /** Why it was set aside; missing where it still waits to be sent. */
  aside?: string | null
}

export const keepUnsent = (kept: Kept): Promise<void> => set(kept.change.id, kept, store())

export const forgetUnsent = (id: string): Promise<void> => del(id, store())

/** What this person could not send for a collection, in the order in which it was made, and what was set aside. */
export async function unsentOf(collection: string, person: string): Promise<{ changes: Change[]; asides: Aside[] }> {
  const all = await entries<string, Kept>(store())
  const own = all
    .map(([, kept]) => kept)
    .filter((kept) => kept.collection === collection && kept.person === person)
    .sort((a, b) => a.order - b.order)
  return {
    changes: own.flatMap(({ change, aside }) => (aside ? [] : [change])),
    asides: own.flatMap(({ change, aside }) => (aside ? [{ change, message: aside }] : [])),
  }
}
