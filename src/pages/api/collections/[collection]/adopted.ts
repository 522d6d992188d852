import { Adopt } from '../../../../server/commands/adopt'
import { inThread } from '../../../../server/heavy/heavy'
import { endpoint } from '../../../../server/http/endpoint'

/** Copies a map of another collection, that is open to whoever asks, into this one. */
export const POST = endpoint({
  access: 'editor',
  body: Adopt,
  cost: 100,
  handle: ({ who, body }) => inThread('adopt', who, body),
})
