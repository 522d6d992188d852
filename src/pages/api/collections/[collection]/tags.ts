import { endpoint } from '../../../../server/http/endpoint'
import { countTags } from '../../../../server/search/search'

/** How many topics carry each tag. */
export const GET = endpoint({ access: 'reader of a map', cost: 5, handle: ({ who }) => countTags(who) })
