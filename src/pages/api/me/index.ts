import { z } from 'zod'
import { transaction } from '../../../server/database'
import { endpoint } from '../../../server/http/endpoint'
import { Failure } from '../../../server/http/failure'
import { json } from '../../../server/http/reply'
import { claimGuest, endGuest } from '../../../server/people/people'
import { expiredCookie, forgetSessions, sessionCookie } from '../../../server/people/sessions'
import { lookWhoMayListen } from '../../../server/telling/rooms'

/** Who is calling; null where nobody is signed in. */
export const GET = endpoint({ access: 'anyone', handle: async ({ who }) => json(200, who) })

const Claim = z.strictObject({
  name: z.string().trim().min(1, 'Please give a name.').max(200),
  address: z.email('This is not a mail address.').max(320),
  password: z.string().min(10, 'A password has at least 10 characters.').max(1_000),
})

/** Turns a beginning without an account into an account. Everything made so far stays. */
export const POST = endpoint({
  access: 'person',
  body: Claim,
  cost: 200,
  async handle({ asked, who, body }) {
    if (who.address) throw new Failure(409, 'This is an account already.')
    const token = await claimGuest(who.id, body.name, body.address, body.password)
    if (!token) throw new Failure(409, 'There is an account with this address already.')
    forgetSessions()
    return json(200, { name: body.name }, { 'Set-Cookie': sessionCookie(token, asked.secure) })
  },
})

/** Ends a beginning without an account; nothing of it is left. */
export const DELETE = endpoint({
  access: 'person',
  async handle({ who }) {
    if (who.address) throw new Failure(409, 'This is an account. Sign out instead.')
    await transaction((client) => endGuest(client, who.id))
    forgetSessions()
    lookWhoMayListen()
    return json(200, { ok: true }, { 'Set-Cookie': expiredCookie(), 'Clear-Site-Data': '"storage"' })
  },
})
