import { z } from 'zod'
import { endpoint } from '../../server/http/endpoint'
import { Failure } from '../../server/http/failure'
import { allowAttempt } from '../../server/http/rate'
import { json } from '../../server/http/reply'
import { personByPassword } from '../../server/people/people'
import { closeSession, expiredCookie, openSession, sessionCookie, tokenFrom } from '../../server/people/sessions'
import { lookWhoMayListen } from '../../server/telling/rooms'

const SignIn = z.strictObject({ address: z.string().max(320), password: z.string().max(1_000) })

export const POST = endpoint({
  access: 'anyone',
  body: SignIn,
  async handle({ asked, body }) {
    if (!(await allowAttempt(body.address.toLowerCase(), asked.from)))
      throw new Failure(429, 'Too many attempts from here. Please wait a minute.')
    const person = await personByPassword(body.address, body.password)
    if (!person) throw new Failure(401, 'Address and password do not belong together.')
    return json(201, { name: person.name }, { 'Set-Cookie': sessionCookie(await openSession(person.id), asked.secure) })
  },
})

export const DELETE = endpoint({
  access: 'person',
  async handle({ asked }) {
    const token = tokenFrom(asked.header('cookie'))
    if (token) await closeSession(token)
    lookWhoMayListen()
    return json(200, { ok: true }, { 'Set-Cookie': expiredCookie() })
  },
})
