import { changeStream } from '../../../../server/commit/serve-stream'
import { endpoint } from '../../../../server/http/endpoint'

/** Changes of the collection as they are committed, as server-sent events. */
export const GET = endpoint({
  access: 'reader',
  async handle({ who, asked, url }) {
    const since = Number(asked.header('last-event-id') ?? url.searchParams.get('since') ?? 0)
    return changeStream(who, Number.isSafeInteger(since) && since >= 0 ? since : 0, asked.gone)
  },
})
