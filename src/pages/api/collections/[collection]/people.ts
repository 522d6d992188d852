import { peopleIn } from '../../../../server/comments'
import { endpoint } from '../../../../server/http/endpoint'

/** Whoever has a role in the collection, by name. */
export const GET = endpoint({ access: 'reader of a map', handle: ({ who }) => peopleIn(who) })
