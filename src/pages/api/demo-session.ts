import { DEMO_ADDRESS } from '../../server/demo'
import { endpoint } from '../../server/http/endpoint'
import { Failure } from '../../server/http/failure'
import { listensOnLoopback } from '../../server/http/public-address'
import { json } from '../../server/http/reply'
import { personByAddress } from '../../server/people/people'
import { openSession, sessionCookie } from '../../server/people/sessions'

/** Signs in as the demo person with one click. Only there while nobody but this computer can reach the server. */
export const POST = endpoint({
  access: 'anyone',
  async handle({ asked }) {
    const person = listensOnLoopback() ? await personByAddress(DEMO_ADDRESS) : null
    if (!person) throw new Failure(404, 'The demo is not loaded here.')
    return json(201, { name: person.name }, { 'Set-Cookie': sessionCookie(await openSession(person.id), asked.secure) })
  },
})
