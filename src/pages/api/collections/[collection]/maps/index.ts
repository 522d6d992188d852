import { endpoint } from '../../../../../server/http/endpoint'
import { mapFacts } from '../../../../../server/map-facts'

export const GET = endpoint({
  access: 'reader of a map',
  cost: 10,
  handle: ({ who }) => mapFacts(who),
})
