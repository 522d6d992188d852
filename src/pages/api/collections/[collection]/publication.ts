import { endpoint } from '../../../../server/http/endpoint'
import { json } from '../../../../server/http/reply'
import { ChosenMaps, startFor, stateFor, takeDownFor } from '../../../../server/publications/desk'

export const GET = endpoint({ access: 'reader', handle: ({ who }) => stateFor(who) })

/** Publishes all of the collection. */
export const POST = endpoint({
  access: 'editor',
  cost: 200,
  handle: async ({ who }) => json(202, await startFor(who, null)),
})

/** Publishes some maps of it, in place of whatever was published before. */
export const PUT = endpoint({
  access: 'editor',
  cost: 200,
  body: ChosenMaps,
  handle: async ({ who, body }) => json(202, await startFor(who, body.maps)),
})

/** Takes the site down. */
export const DELETE = endpoint({ access: 'editor', handle: ({ who }) => takeDownFor(who) })
