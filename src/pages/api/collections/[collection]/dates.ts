import { datesOf } from '../../../../server/dates'
import { endpoint } from '../../../../server/http/endpoint'

/** All topics with a day. */
export const GET = endpoint({ access: 'reader of a map', cost: 5, handle: ({ who }) => datesOf(who) })
