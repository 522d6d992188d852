import { missedChanges, ownChanges, postChanges } from '../../../../server/commit/receive-changes'
import { endpoint } from '../../../../server/http/endpoint'
import { mapsIn, rowsSeenIn } from '../../../../server/http/path-ids'

/** Changes after a number, for a browser that missed some; without one the caller's own newest, for undo and redo. */
export const GET = endpoint({
  access: 'reader of a map',
  handle({ who, url }) {
    if (!url.searchParams.has('after')) return ownChanges(who)
    const after = Number(url.searchParams.get('after'))
    return missedChanges(who, after, rowsSeenIn(url, after), mapsIn(url))
  },
})

export const POST = endpoint(postChanges)
