import { createCollection } from '../../server/collections'
import { transaction } from '../../server/database'
import { endpoint } from '../../server/http/endpoint'
import { Failure } from '../../server/http/failure'
import { allowGuest } from '../../server/http/rate'
import { json } from '../../server/http/reply'
import { createGuest } from '../../server/people/people'
import { openSession, sessionCookie } from '../../server/people/sessions'

/** Begins without an account: a person known by a cookie, with a collection of their own. */
export const POST = endpoint({
  access: 'anyone',
  async handle({ asked, who }) {
    if (who) throw new Failure(409, 'You have begun already.')
    if (!(await allowGuest(asked.from)))
      throw new Failure(429, 'Too many people are starting from here just now. Please try again in a minute.')
    const { collection, token } = await transaction(async (client) => {
      const guest = await createGuest(client)
      return {
        collection: await createCollection(client, guest.id, 'My collection'),
        token: await openSession(guest.id, client),
      }
    })
    return json(201, { collection }, { 'Set-Cookie': sessionCookie(token, asked.secure) })
  },
})
