import { changeStream } from '../../../../server/commit/serve-stream'
import { endpoint } from '../../../../server/http/endpoint'
import { mapsIn } from '../../../../server/http/path-ids'

/** What happens to the collection as it is committed, as server-sent events, with the edits of the maps that are named. */
export const GET = endpoint({
  access: 'reader',
  async handle({ who, asked, url }) {
    const since = Number(asked.header('last-event-id') ?? url.searchParams.get('since') ?? 0)
    return changeStream(asked, who, Number.isSafeInteger(since) && since >= 0 ? since : 0, mapsIn(url))
  },
})
