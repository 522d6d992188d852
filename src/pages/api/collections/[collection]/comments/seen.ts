import { noteSeen, SeenAsked } from '../../../../../server/comments'
import { endpoint } from '../../../../../server/http/endpoint'

/** Notes that whoever asks has seen some comments. */
export const POST = endpoint({
  access: 'reader of a map',
  body: SeenAsked,
  handle: ({ who, body }) => noteSeen(who, body.comments),
})
