import { MergeRequest } from '../../../../server/commands/merge-request'
import { inThread } from '../../../../server/heavy/heavy'
import { endpoint } from '../../../../server/http/endpoint'

export const POST = endpoint({
  access: 'reader of a map',
  body: MergeRequest,
  cost: 200,
  handle: ({ who, body }) => inThread('planMergeOf', who, body),
})
