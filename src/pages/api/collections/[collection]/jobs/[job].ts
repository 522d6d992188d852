import { endpoint, pathId } from '../../../../../server/http/endpoint'
import { Failure } from '../../../../../server/http/failure'
import { JobIdInPath } from '../../../../../server/http/path-ids'
import { endJob } from '../../../../../server/jobs/ask-job'
import { jobOf } from '../../../../../server/jobs/job-rows'

/** One job, with what came of it. */
export const GET = endpoint({
  access: 'reader',
  async handle({ who, params }) {
    const job = await jobOf(who.collection, pathId(JobIdInPath, params.job, 'job'))
    if (!job) throw new Failure(404, 'There is no such job, or it was done long ago.')
    return job
  },
})

/** Cancels a job. */
export const DELETE = endpoint({
  access: 'reader',
  handle: ({ who, params }) => endJob(who, pathId(JobIdInPath, params.job, 'job')),
})
