import { inThread } from '../../../../server/heavy/heavy'
import { endpoint } from '../../../../server/http/endpoint'

export const GET = endpoint({
  access: 'reader of a map',
  cost: 100,
  handle: ({ who }) => inThread('linkLedgerOf', who),
})
