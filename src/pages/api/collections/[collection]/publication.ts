import { endpoint, json } from '../../../../server/http/endpoint'
import { startFor, stateFor } from '../../../../server/publications/desk'

export const GET = endpoint({ access: 'reader', handle: ({ who }) => stateFor(who) })

export const POST = endpoint({ access: 'editor', handle: async ({ who }) => json(202, await startFor(who)) })
