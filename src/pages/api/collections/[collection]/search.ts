import { endpoint } from '../../../../server/http/endpoint'
import { searchPage } from '../../../../server/search/search-page'

/** All that is found in a collection, with the topics above it. */
export const GET = endpoint({
  access: 'reader of a map',
  cost: 10,
  handle: ({ who, url }) => searchPage(who, url.searchParams),
})
