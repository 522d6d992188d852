import { createStore, del, entries, set } from 'idb-keyval'
import type { Change } from '../../core/changes/edit'

/** Changes that the server has not acknowledged, kept by the browser so that a closed tab or lost power loses nothing. */
const store = () => createStore('folvet-unsent', 'changes')

interface Kept {
  collection: string
  person: string
  order: number
  change: Change
}

export const keepUnsent = (kept: Kept): Promise<void> => set(kept.change.id, kept, store())

export const forgetUnsent = (id: string): Promise<void> => del(id, store())

/** What this person could not send for a collection, in the order in which it was made. */
export async function unsentOf(collection: string, person: string): Promise<Change[]> {
  const all = await entries<string, Kept>(store())
  return all
    .map(([, kept]) => kept)
    .filter((kept) => kept.collection === collection && kept.person === person)
    .sort((a, b) => a.order - b.order)
    .map((kept) => kept.change)
}
