import { endpoint, pathId } from '../../../../../../server/http/endpoint'
import { MapIdInPath } from '../../../../../../server/http/path-ids'
import { gatheredOn } from '../../../../../../server/search/gather'
import { todayIn } from '../../../../../../server/search/search-page'

/** What the gathered lists of a map find. */
export const GET = endpoint({
  access: 'reader of a map',
  cost: 5,
  handle: ({ who, params, url }) => gatheredOn(who, pathId(MapIdInPath, params.map, 'map'), todayIn(url.searchParams)),
})
