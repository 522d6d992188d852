import { digestOf } from '../../../../server/collections'
import { endpoint } from '../../../../server/http/endpoint'

export const GET = endpoint({
  access: 'reader',
  handle: ({ who }) => digestOf(who.collection, who.role, who.person.id),
})
