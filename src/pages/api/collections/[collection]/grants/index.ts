import { endpoint } from '../../../../../server/http/endpoint'
import { json } from '../../../../../server/http/reply'
import { GrantAsked, giveGrant, grantsIn } from '../../../../../server/people/grants'

/** Who may do what in a collection. */
export const GET = endpoint({ access: 'owner', handle: ({ who }) => grantsIn(who.collection) })

export const POST = endpoint({
  access: 'owner',
  body: GrantAsked,
  cost: 50,
  handle: async ({ who, body }) => json(201, await giveGrant(who.collection, body)),
})
