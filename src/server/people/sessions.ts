import { createHash, randomBytes } from 'node:crypto'
import { LRUCache } from 'lru-cache'
import { type Client, database, prepared } from '../database'
import type { Person } from './person'

const SESSION_DAYS = 60
const hashOf = (token: string) => createHash('sha256').update(token).digest()

/** Opens a session; the token goes into the cookie and is stored only as a hash. */
export async function openSession(person: string, client?: Client): Promise<string> {
  const token = randomBytes(32).toString('base64url')
  await (client ?? database()).query(
    `INSERT INTO session (token_hash, person, expires_at) VALUES ($1, $2, now() + make_interval(days => ${SESSION_DAYS}))`,
    [hashOf(token), person],
  )
  return token
}

/**
 * Sessions that were looked up a moment ago, so that a burst of requests asks once. One that another process ends
 * counts here for at most two seconds more.
 */
const recent = new LRUCache<string, Person>({ max: 10_000, ttl: 2_000 })

/** To be called when something about a person changes in this process. */
export const forgetSessions = (): void => recent.clear()

const PERSON_OF_SESSION = `SELECT p.id, p.name, p.address FROM session s JOIN person p ON p.id = s.person
  WHERE s.token_hash = $1 AND s.expires_at > now()`

export async function personOfSession(token: string): Promise<Person | null> {
  const hash = hashOf(token)
  const key = hash.toString('base64')
  const known = recent.get(key)
  if (known) return known
  const { rows } = await prepared<Person>(database(), PERSON_OF_SESSION, [hash])
  if (rows[0]) recent.set(key, rows[0])
  return rows[0] ?? null
}

export async function closeSession(token: string): Promise<void> {
  forgetSessions()
  await database().query('DELETE FROM session WHERE token_hash = $1 OR expires_at < now()', [hashOf(token)])
}

/** The session of a request as it is stored; null where it has none. */
export function sessionOf(cookies: string | null): Buffer | null {
  const token = tokenFrom(cookies)
  return token ? hashOf(token) : null
}

const COOKIE = 'folvet_session'

export const sessionCookie = (token: string, secure: boolean): string =>
  `${COOKIE}=${token}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${SESSION_DAYS * 86_400}${secure ? '; Secure' : ''}`

export const expiredCookie = (): string => `${COOKIE}=; Path=/; HttpOnly; SameSite=Lax; Max-Age=0`

export function tokenFrom(cookies: string | null): string | null {
  const found = cookies?.split(';').find((cookie) => cookie.trim().startsWith(`${COOKIE}=`))
  return found ? found.trim().slice(COOKIE.length + 1) : null
}
