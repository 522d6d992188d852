import { endFeed, feedOf, makeFeed } from '../../../../server/date-feeds'
import { endpoint } from '../../../../server/http/endpoint'

/** The address at which a calendar program may fetch one's days. */
export const GET = endpoint({ access: 'reader of a map', handle: ({ who }) => feedOf(who) })
export const POST = endpoint({ access: 'reader of a map', cost: 10, handle: ({ who }) => makeFeed(who) })
export const DELETE = endpoint({ access: 'reader of a map', handle: ({ who }) => endFeed(who) })
