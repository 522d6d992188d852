import { inThread } from '../../../../server/heavy/heavy'
import { endpoint } from '../../../../server/http/endpoint'
import { Table } from '../../../../server/sorting'

export const POST = endpoint({
  access: 'reader of a map',
  body: Table,
  cost: 20,
  handle: ({ body }) => inThread('suggestBands', body),
})
