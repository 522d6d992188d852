import { setTimeout as pause } from 'node:timers/promises'
import { database } from '../database'
import { CHANGE_CHANNEL } from './channel'

/** Between two notices. Each is a commit of its own for the database: one after every batch took a tenth of its time. */
const BETWEEN_NOTICES = 20

/** Collections with changes of which other processes have not been told yet, with the newest number of each. */
const untold = new Map<string, number>()
let telling = false
const here = new Set<(collection: string) => void>()

/** Calls `wake` with a collection whenever this process has committed something to it. */
export const onCommit = (wake: (collection: string) => void): void => {
  here.add(wake)
}

/**
 * Tells everybody who listens that something was committed: in this process at once, in others by a notice. It is sent
 * after the commit, since commits that send notices wait for one another, and what comes meanwhile goes into the next one.
 * A notice that is lost costs a moment: listeners look by themselves too.
 */
export function announce(collection: string, number: number): void {
  for (const wake of here) wake(collection)
  untold.set(collection, number)
  if (!telling) void tell()
}

async function tell(): Promise<void> {
  telling = true
  try {
    while (untold.size > 0) {
      const notices = [...untold].map(([collection, number]) => `${collection}:${number}`)
      untold.clear()
      await database().query('SELECT pg_notify($1, notice) FROM unnest($2::text[]) AS notice', [
        CHANGE_CHANNEL,
        notices,
      ])
      await pause(BETWEEN_NOTICES, undefined, { ref: false })
    }
  } catch {
    // The database is away: whoever listens will look by themselves.
  } finally {
    telling = false
  }
}
