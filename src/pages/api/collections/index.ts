import { z } from 'zod'
import { collectionsOf, createCollection } from '../../../server/collections'
import { transaction } from '../../../server/database'
import { endpoint } from '../../../server/http/endpoint'
import { json } from '../../../server/http/reply'

export const GET = endpoint({ access: 'person', handle: async ({ who }) => collectionsOf(who.id) })

export const POST = endpoint({
  access: 'person',
  body: z.strictObject({ title: z.string().trim().min(1, 'Please give a name.').max(500) }),
  handle: async ({ who, body }) =>
    json(201, { collection: await transaction((client) => createCollection(client, who.id, body.title)) }),
})
