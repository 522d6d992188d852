import { inThread } from '../../../../server/heavy/heavy'
import { endpoint } from '../../../../server/http/endpoint'
import { json } from '../../../../server/http/reply'
import { CheckAsked, checkWeblinks } from '../../../../server/jobs/ask-check'

export const GET = endpoint({
  access: 'reader of a map',
  cost: 100,
  handle: ({ who }) => inThread('linkLedgerOf', who),
})

/** Has all web links looked at. */
export const POST = endpoint({
  access: 'editor',
  body: CheckAsked,
  cost: 200,
  handle: async ({ who, body }) => json(202, await checkWeblinks(who, body.id)),
})
