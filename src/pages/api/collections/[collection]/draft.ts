import { DraftAsked } from '../../../../server/drafting'
import { inThread } from '../../../../server/heavy/heavy'
import { endpoint } from '../../../../server/http/endpoint'

/** Proposes branches. Nothing is changed: whoever asked takes what they want. */
export const POST = endpoint({
  access: 'editor of a map',
  body: DraftAsked,
  cost: 100,
  handle: ({ who, body }) => inThread('draft', who, body),
})
