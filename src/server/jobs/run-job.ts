import { parentPort } from 'node:worker_threads'
import { reachesAll } from '../../core/rights/grant'
import { database } from '../database'
import { Failure } from '../http/failure'
import { reachesOf } from '../people/rights'
import { calendarsKind } from './calendars-job'
import { checkLinksKind } from './check-links-job'
import { importKind } from './import-job'
import type { JobKind } from './job-kind'
import { type HeldJob, LostJob } from './job-rows'
import { publishKind } from './publish-job'
import { readFilesKind } from './read-files-job'

/** Every kind of job. A new one is a file beside these and a line here. */
const kinds = {
  publish: publishKind,
  import: importKind,
  'check web links': checkLinksKind,
  'read files': readFilesKind,
  'keep calendars in step': calendarsKind,
} as const
type JobKindName = keyof typeof kinds

const kindOf = (job: HeldJob): JobKind<unknown> => {
  const kind = Object.hasOwn(kinds, job.kind) ? kinds[job.kind as JobKindName] : null
  if (!kind) throw new Error(`There is no kind of job ${job.kind}.`)
  return kind as JobKind<unknown>
}

/**
 * Does a job, or takes back what was done of one that is to end. In a thread for jobs. Returns whether it came to its end;
 * else it is in other hands, or to end. Refused where whoever asked may not do it any more.
 */
export async function runJob(job: HeldJob): Promise<boolean> {
  const kind = kindOf(job)
  try {
    if (job.state === 'ending') await kind.takeBack(job)
    else {
      if (!kind.isOurs) await checkAsker(job)
      await kind.run(job, job.input, (done, total) => parentPort?.postMessage({ progress: { done, total } }))
    }
    return true
  } catch (error) {
    if (error instanceof LostJob) return false
    throw error
  }
}

async function checkAsker(job: HeldJob): Promise<void> {
  const [reach] = await reachesOf(database(), job.collection, [job.person])
  if (!reachesAll(reach!, 'editor'))
    throw new Failure(403, 'Your role in this collection does not allow this any more.')
}

export const wordsForFailed = (job: HeldJob): string => kindOf(job).failed
