import { z } from 'zod'
import { transaction } from '../../server/database'
import { endpoint, json } from '../../server/http/endpoint'
import { Failure } from '../../server/http/failure'
import { claimGuest, endGuest } from '../../server/people/people'
import { expiredCookie, forgetSessions } from '../../server/people/sessions'

export const GET = endpoint({ access: 'person', handle: async ({ who }) => who })

const Claim = z.strictObject({
  name: z.string().trim().min(1, 'Please give a name.').max(200),
  address: z.email('This is not a mail address.').max(320),
  password: z.string().min(10, 'A password has at least 10 characters.').max(1_000),
})

/** Turns a beginning without an account into an account. Everything made so far stays. */
export const POST = endpoint({
  access: 'person',
  body: Claim,
  async handle({ who, body }) {
    if (who.address) throw new Failure(409, 'This is an account already.')
    if (!(await claimGuest(who.id, body.name, body.address, body.password)))
      throw new Failure(409, 'There is an account with this address already.')
    forgetSessions()
    return json(200, { name: body.name })
  },
})

/** Ends a beginning without an account; nothing of it is left. */
export const DELETE = endpoint({
  access: 'person',
  async handle({ who }) {
    if (who.address) throw new Failure(409, 'This is an account. Sign out instead.')
    await transaction((client) => endGuest(client, who.id))
    forgetSessions()
    return json(200, { ok: true }, { 'Set-Cookie': expiredCookie(), 'Clear-Site-Data': '"storage"' })
  },
})
