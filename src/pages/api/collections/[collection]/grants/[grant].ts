import { endpoint, pathId } from '../../../../../server/http/endpoint'
import { GrantIdInPath } from '../../../../../server/http/path-ids'
import { withdrawGrant } from '../../../../../server/people/grants'

/** Takes a grant back. */
export const DELETE = endpoint({
  access: 'owner',
  handle: ({ who, params }) => withdrawGrant(who.collection, pathId(GrantIdInPath, params.grant, 'grant')),
})
