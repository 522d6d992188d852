import { serveFeed } from '../../../server/date-feeds'
import { endpoint } from '../../../server/http/endpoint'

/** Days for a calendar program, which knows nobody's session: the secret in the address opens them. */
export const GET = endpoint({
  access: 'anyone',
  cost: 10,
  handle: ({ url, params }) => serveFeed(params.secret ?? '', url.origin),
})
