import { z } from 'zod'
import { endpoint } from '../../server/http/endpoint'
import { followLink } from '../../server/people/grants'

/** Follows a link to what somebody opened by it. A link is as long as a key, and cannot be guessed. */
export const POST = endpoint({
  access: 'person',
  body: z.strictObject({ secret: z.string().min(1).max(100) }),
  cost: 50,
  handle: ({ who, body }) => followLink(who, body.secret),
})
