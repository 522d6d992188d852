import { commentsFor } from '../../../../../server/comments'
import { endpoint } from '../../../../../server/http/endpoint'

/** What was said on the topics of the collection; with `new` what whoever asks has not seen. */
export const GET = endpoint({
  access: 'reader of a map',
  cost: 5,
  handle: ({ who, url }) => commentsFor(who, url.searchParams.has('new')),
})
