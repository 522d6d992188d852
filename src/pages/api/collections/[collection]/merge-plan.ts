import { endpoint } from '../../../../server/http/endpoint'
import { MergeRequest, planMergeOf } from '../../../../server/run-command'

export const POST = endpoint({
  access: 'reader',
  body: MergeRequest,
  cost: 200,
  handle: ({ who, body }) => planMergeOf(who.collection, body),
})
