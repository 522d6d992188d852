import { templatesOf } from '../../../../server/collections'
import { endpoint } from '../../../../server/http/endpoint'

/** The templates that were kept in a collection. */
export const GET = endpoint({ access: 'reader', handle: ({ who }) => templatesOf(who.collection) })
