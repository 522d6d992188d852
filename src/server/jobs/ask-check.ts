import { z } from 'zod'
import { ChangeId } from '../../core/records/ids'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import { askJob } from './ask-job'
import { jobOf } from './job-rows'

/** The id is that of the job: asked for twice, it is done once. */
export const CheckAsked = z.strictObject({ id: ChangeId })

/** Asks that all web links of a collection are looked at. Refused while that is going on. */
export async function checkWeblinks({ collection, person }: Member, id: string): Promise<{ job: string }> {
  const isNew = await askJob({
    id,
    collection,
    person,
    kind: 'check web links',
    label: 'Look at the web links',
    input: null,
  })
  if (!isNew && !(await jobOf(collection, id))) throw new Failure(409, 'The web links are being looked at right now.')
  return { job: id }
}
