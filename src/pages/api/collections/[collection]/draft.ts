import { DraftAsked, draft } from '../../../../server/drafting'
import { endpoint } from '../../../../server/http/endpoint'

/** Proposes branches. Nothing is changed: whoever asked takes what they want. */
export const POST = endpoint({
  access: 'editor',
  body: DraftAsked,
  cost: 100,
  handle: ({ who, body }) => draft(who.collection, body),
})
