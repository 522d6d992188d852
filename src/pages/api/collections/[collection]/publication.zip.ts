import { endpoint } from '../../../../server/http/endpoint'
import { zipFor } from '../../../../server/publications/desk'

export const GET = endpoint({ access: 'reader', cost: 100, handle: ({ who }) => zipFor(who) })
