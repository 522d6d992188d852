import { reachesAll } from '../../core/rights/grant'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import { announceJobs } from './announce-jobs'
import { addJob, cancelJob, checkRoomForJob, type JobAsked } from './job-rows'
import { lookAtOwn, workSoon } from './runner'

/**
 * Asks for a job; it is begun as soon as there is room. Refused where somebody asks for too many at once. False where it was
 * asked for already, or cannot run beside another.
 */
export async function askJob(asked: JobAsked): Promise<boolean> {
  await checkRoomForJob(asked.person.id)
  const isNew = await addJob(asked)
  if (isNew) {
    announceJobs(asked.collection)
    workSoon()
  }
  return isNew
}

/** Asks that a job ends: one's own, or, as an editor of all, anybody's. What was done of it is taken back. */
export async function endJob({ collection, person, reach }: Member, id: string): Promise<void> {
  if (!(await cancelJob(collection, id, reachesAll(reach, 'editor') ? null : person.id)))
    throw new Failure(409, 'There is nothing to cancel: this has ended already.')
  lookAtOwn()
  announceJobs(collection)
}
