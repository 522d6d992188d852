import { endpoint } from '../../../../server/http/endpoint'
import { json } from '../../../../server/http/reply'
import { startFor, stateFor, takeDownFor } from '../../../../server/publications/desk'

export const GET = endpoint({ access: 'reader', handle: ({ who }) => stateFor(who) })

export const POST = endpoint({ access: 'editor', cost: 200, handle: async ({ who }) => json(202, await startFor(who)) })

/** Takes the site down. */
export const DELETE = endpoint({ access: 'editor', handle: ({ who }) => takeDownFor(who) })
