import { z } from 'zod'
import { ChangeId } from '../../../../core/records/ids'
import { inThread } from '../../../../server/heavy/heavy'
import { endpoint } from '../../../../server/http/endpoint'
import { json } from '../../../../server/http/reply'
import { checkWeblinks } from '../../../../server/link-ledger'

export const GET = endpoint({
  access: 'reader of a map',
  cost: 100,
  handle: ({ who }) => inThread('linkLedgerOf', who),
})

/** Has all web links looked at. The id is that of the job: asked for twice, it is done once. */
export const POST = endpoint({
  access: 'editor',
  body: z.strictObject({ id: ChangeId }),
  cost: 200,
  handle: async ({ who, body }) => json(202, await checkWeblinks(who, body.id)),
})
