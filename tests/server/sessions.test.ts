import { createHash } from 'node:crypto'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { Caller } from './people'

const database = new pg.Client({ connectionString: inject('databaseUrl') })
beforeAll(() => database.connect())
afterAll(() => database.end())

const address = () => `${crypto.randomUUID()}@folvet.example`
const password = 'ten letters or more'
const claim = (caller: Caller, to: string, name = 'Runa Feld') =>
  caller.send('POST', '/api/me', { name, address: to, password })

describe('a beginning without an account', () => {
  test('becomes an account that keeps everything', async () => {
    const guest = await Caller.begin()
    await guest.grow('# Garden\n\n- Spring')
    const [mine, before] = [address(), guest.cookie!]
    expect((await claim(guest, mine)).status).toBe(200)
    // Whoever saw the cookie of the guest has nothing of the account.
    expect((await Caller.nobody.call('GET', '/api/me', null, { cookie: before })).text).toBe('null')
    expect((await guest.call('GET', '/api/me')).json).toMatchObject({ address: mine })
    const signedIn = await Caller.nobody.send('POST', '/api/sessions', { address: mine.toUpperCase(), password })
    expect(signedIn.status).toBe(201)
    const cookie = signedIn.headers.get('set-cookie') ?? ''
    expect(cookie).toMatch(/HttpOnly; SameSite=Lax/)
    const collections = await Caller.nobody.call('GET', '/api/collections', null, { cookie: cookie.split(';')[0]! })
    expect(collections.text).toContain(guest.collection)
  })

  test('cannot take the address of somebody else, and cannot be claimed twice', async () => {
    const [first, second, mine] = [await Caller.begin(), await Caller.begin(), address()]
    await claim(first, mine)
    expect((await claim(second, mine.toUpperCase())).status).toBe(409)
    expect((await claim(first, address())).status).toBe(409)
  })

  test('refuses a short password and what is no address, in words', async () => {
    const guest = await Caller.begin()
    const short = await guest.send('POST', '/api/me', { name: 'Runa', address: address(), password: 'short' })
    expect([short.status, short.text]).toEqual([400, expect.stringContaining('A password has at least 10 characters.')])
    const wrong = await guest.send('POST', '/api/me', { name: 'Runa', address: 'nowhere', password })
    expect([wrong.status, wrong.text]).toEqual([400, expect.stringContaining('This is not a mail address.')])
  })
})

describe('a session', () => {
  test('is stored hashed, ends with signing out, and ends with its time', async () => {
    const guest = await Caller.begin()
    const mine = address()
    await claim(guest, mine)
    const open = async () => {
      const answer = await Caller.nobody.send('POST', '/api/sessions', { address: mine, password })
      return answer.headers.get('set-cookie')!.split(';')[0]!
    }
    const cookie = await open()
    const token = cookie.split('=')[1]!
    const { rows } = await database.query<{ token_hash: Buffer }>('SELECT token_hash FROM session')
    const hashes = rows.map(({ token_hash }) => token_hash.toString('hex'))
    expect(hashes).toContain(createHash('sha256').update(token).digest('hex'))
    expect(hashes.join()).not.toContain(Buffer.from(token).toString('hex'))
    const me = (by: string) => Caller.nobody.call('GET', '/api/me', null, { cookie: by })
    expect((await me(cookie)).json).toMatchObject({ address: mine })
    await Caller.nobody.call('DELETE', '/api/sessions', null, { cookie })
    expect((await me(cookie)).text).toBe('null')

    const late = await open()
    await database.query(`UPDATE session SET expires_at = now() - interval '1 second' WHERE token_hash = $1`, [
      createHash('sha256').update(late.split('=')[1]!).digest(),
    ])
    expect((await me(late)).text).toBe('null')
    expect((await me('folvet_session=made-up')).text).toBe('null')
  })

  test('keeps passwords as argon2id and answers a wrong one like an unknown address', async () => {
    const guest = await Caller.begin()
    const mine = address()
    await claim(guest, mine)
    const { rows } = await database.query<{ password_hash: string }>(
      'SELECT password_hash FROM person WHERE address = $1',
      [mine],
    )
    expect(rows[0]!.password_hash).toMatch(/^\$argon2id\$/)
    const wrong = await Caller.nobody.send('POST', '/api/sessions', { address: mine, password: 'not this one at all' })
    const unknown = await Caller.nobody.send('POST', '/api/sessions', { address: address(), password })
    expect([wrong.status, wrong.text]).toEqual([unknown.status, unknown.text])
  })
})
