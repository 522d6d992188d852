import { searchesOf } from '../../../../server/collections'
import { endpoint } from '../../../../server/http/endpoint'

/** The searches that were kept in a collection. */
export const GET = endpoint({ access: 'reader', handle: ({ who }) => searchesOf(who.collection) })
