import { createStore, del, entries, set } from 'idb-keyval'
import type { Change } from '../../core/changes/edit'
import { browserStorage } from '../app/browser-storage'
import type { Aside } from './outbox'

/** Changes that the server has not acknowledged, kept by the browser so that a closed tab or lost power loses nothing. */
const store = createStore('folvet-unsent', 'changes')
/** Where a change is kept until the database of the browser has it: that one takes a moment, and a page that goes waits for nothing. */
const AT_ONCE = 'folvet-unsent:'

/** The last number that was given here. */
const LAST_ORDER = 'folvet-order'
let lastOrder = 0

/** A number above all that were given in this browser before, whatever its clock says now: changes are sent in their order. */
export function nextOrder(): number {
  const kept = Number(browserStorage.get(LAST_ORDER) ?? Number.NaN)
  lastOrder = Math.max(lastOrder, Number.isFinite(kept) ? kept : Date.now()) + 1
  browserStorage.set(LAST_ORDER, String(lastOrder))
  return lastOrder
}

interface Kept {
  collection: string
  person: string
  order: number
  change: Change
  /** Why it was set aside; missing where it still waits to be sent. */
  aside?: string | null
}

/** Keeps a change at once, where there is room; resolves when it is kept for long, and is refused where it is not. */
export async function keepUnsent(kept: Kept): Promise<void> {
  const { id } = kept.change
  const isKept = browserStorage.set(AT_ONCE + id, JSON.stringify(kept))
  try {
    await set(id, kept, store)
  } catch (error) {
    // A browser without a database has it there all the same.
    if (!isKept) throw error
    return
  }
  browserStorage.remove(AT_ONCE + id)
}

export async function forgetUnsent(id: string): Promise<void> {
  browserStorage.remove(AT_ONCE + id)
  await del(id, store)
}

/** What the database of the browser has; nothing where it has none, which can be said by throwing at once. */
async function kept(): Promise<[string, Kept][]> {
  try {
    return await entries<string, Kept>(store)
  } catch {
    return []
  }
}

/** All that is kept of this person's, also what the database of the browser does not have yet. */
async function keptOf(person: string): Promise<Kept[]> {
  const all = new Map(await kept())
  for (const id of browserStorage.below(AT_ONCE)) {
    const late = browserStorage.json<Kept>(AT_ONCE + id)
    if (late) all.set(id, late)
  }
  return [...all.values()].filter((one) => one.person === person)
}

/** The collections of which something is kept that this person could not send. */
export async function collectionsUnsent(person: string): Promise<string[]> {
  return [...new Set((await keptOf(person)).map(({ collection }) => collection))]
}

/** What this person could not send for a collection, in the order in which it was made, and what was set aside. */
export async function unsentOf(collection: string, person: string): Promise<{ changes: Change[]; asides: Aside[] }> {
  const own = (await keptOf(person)).filter((one) => one.collection === collection).sort((a, b) => a.order - b.order)
  return {
    changes: own.flatMap(({ change, aside }) => (aside ? [] : [change])),
    asides: own.flatMap(({ change, aside }) => (aside ? [{ change, message: aside }] : [])),
  }
}

/** Forgets what this person could not send, and what was set aside: they leave nothing behind. Others' stays. */
export async function forgetUnsentOf(person: string): Promise<void> {
  for (const { change } of await keptOf(person)) await forgetUnsent(change.id).catch(() => {})
}
