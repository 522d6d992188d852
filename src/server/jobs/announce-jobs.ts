import { database } from '../database'
import { JOB_CHANNEL } from '../telling/channel'

const here = new Set<(collection: string) => void>()

/** Calls `wake` with a collection whenever this process has done something about one of its jobs. */
export const onJobs = (wake: (collection: string) => void): void => {
  here.add(wake)
}

/** Tells everybody who listens that a job of a collection was added, is further or has ended. */
export function announceJobs(collection: string): void {
  for (const wake of here) wake(collection)
  database()
    .query('SELECT pg_notify($1, $2)', [JOB_CHANNEL, collection])
    .catch(() => {})
}
