import { endpoint } from '../../../../server/http/endpoint'
import { mapsIn, rowsSeenIn, wholeNumber } from '../../../../server/http/path-ids'
import { changeStream } from '../../../../server/telling/serve-stream'

/** What happens to the collection as it is committed, as server-sent events, with the edits of the maps that are named. */
export const GET = endpoint({
  access: 'reader of a map',
  async handle({ who, asked, url }) {
    const since = wholeNumber(asked.header('last-event-id') ?? url.searchParams.get('since'), 0)
    return changeStream(asked, who, { changes: since, rows: rowsSeenIn(url, since) }, mapsIn(url))
  },
})
