import { endpoint } from '../../../../server/http/endpoint'
import { gatheredFor } from '../../../../server/search/search-page'

/** What a search would gather below a topic, to be shown before it does. */
export const GET = endpoint({
  access: 'reader of a map',
  cost: 5,
  handle: ({ who, url }) => gatheredFor(who, url.searchParams),
})
