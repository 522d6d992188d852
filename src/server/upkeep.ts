import { database } from './database'
import { removeUnused } from './files/contents'
import { forgetInHistory } from './forgetting'
import { log } from './http/endpoint'
import { forgetOldJobs } from './jobs/job-rows'

const EVERY_MS = 30 * 60_000

/** What is done from time to time: content that nobody names, jobs and sessions that have ended are removed, and so is what is still to
 * be forgotten. */
export function startUpkeep(): void {
  const timer = setInterval(() => {
    Promise.all([
      removeUnused(),
      forgetOldJobs(),
      forgetInHistory(null),
      database().query('DELETE FROM session WHERE expires_at < now()'),
    ]).catch((error: unknown) => log.warn({ error }, 'upkeep was put off'))
  }, EVERY_MS)
  timer.unref()
}
