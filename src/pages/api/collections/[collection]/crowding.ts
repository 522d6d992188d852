import { Effect } from '../../../../server/crowding'
import { inThread } from '../../../../server/heavy/heavy'
import { endpoint } from '../../../../server/http/endpoint'

export const GET = endpoint({
  access: 'reader of a map',
  cost: 100,
  handle: ({ who }) => inThread('crowdedMaps', who),
})

export const POST = endpoint({
  access: 'reader of a map',
  body: Effect,
  cost: 20,
  handle: ({ who, body }) => inThread('splitComesTo', who, body),
})
