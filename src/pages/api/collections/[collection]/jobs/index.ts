import { endpoint } from '../../../../../server/http/endpoint'
import { jobsOf } from '../../../../../server/jobs/job-rows'

/** What is being done in a collection, and what has just been done. */
export const GET = endpoint({ access: 'reader', handle: ({ who }) => jobsOf(who.collection) })
