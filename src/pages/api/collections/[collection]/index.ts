import { digestOf } from '../../../../server/collections'
import { endpoint } from '../../../../server/http/endpoint'

export const GET = endpoint({
  access: 'reader of a map',
  handle: ({ who }) => digestOf(who),
})
