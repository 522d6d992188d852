import { endpoint } from '../../../../server/http/endpoint'
import { waitingFor } from '../../../../server/waiting'

/** What waits for whoever asks, or is new to them; `today` is the day where they are. */
export const GET = endpoint({
  access: 'reader of a map',
  cost: 5,
  handle: ({ who, url }) => waitingFor(who, url.searchParams.get('today')),
})
