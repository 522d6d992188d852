import { Day } from '../../../../core/records/dates'
import { endpoint } from '../../../../server/http/endpoint'
import { Failure } from '../../../../server/http/failure'
import { waitingFor } from '../../../../server/waiting'

/** What waits for whoever asks, or is new to them; `today` is the day where they are. */
export const GET = endpoint({
  access: 'reader of a map',
  cost: 5,
  handle: ({ who, url }) => {
    const today = Day.safeParse(url.searchParams.get('today'))
    if (!today.success) throw new Failure(400, 'Say which day it is, as 2026-03-14.')
    return waitingFor(who, today.data)
  },
})
