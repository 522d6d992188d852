import { z } from 'zod'
import { endpoint, json } from '../../server/http/endpoint'
import { Failure } from '../../server/http/failure'
import { allowAttempt } from '../../server/http/rate'
import { personByPassword } from '../../server/people/people'
import { closeSession, expiredCookie, openSession, sessionCookie, tokenFrom } from '../../server/people/sessions'

const SignIn = z.strictObject({ address: z.string().max(320), password: z.string().max(1_000) })

export const POST = endpoint({
  access: 'anyone',
  body: SignIn,
  async handle({ url, body }) {
    if (!(await allowAttempt(body.address.toLowerCase())))
      throw new Failure(429, 'Too many attempts. Please wait a minute.')
    const person = await personByPassword(body.address, body.password)
    if (!person) throw new Failure(401, 'Address and password do not belong together.')
    return json(
      201,
      { name: person.name },
      { 'Set-Cookie': sessionCookie(await openSession(person.id), url.protocol === 'https:') },
    )
  },
})

export const DELETE = endpoint({
  access: 'person',
  async handle({ request }) {
    const token = tokenFrom(request.headers.get('cookie'))
    if (token) await closeSession(token)
    return json(200, { ok: true }, { 'Set-Cookie': expiredCookie() })
  },
})
