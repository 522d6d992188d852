import { missedChanges, ownChanges, postChanges } from '../../../../server/commit/receive-changes'
import { endpoint } from '../../../../server/http/endpoint'
import { mapsIn } from '../../../../server/http/path-ids'

/** Changes after a number, for a browser that missed some; without one the caller's own newest, for undo and redo. */
export const GET = endpoint({
  access: 'reader of a map',
  handle: ({ who, url }) =>
    url.searchParams.has('after')
      ? missedChanges(who, Number(url.searchParams.get('after')), mapsIn(url))
      : ownChanges(who),
})

export const POST = endpoint(postChanges)
