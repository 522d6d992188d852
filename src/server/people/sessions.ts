import { createHash, randomBytes } from 'node:crypto'
import { type Client, database } from '../database'
import type { Person } from './people'

const DAYS = 60
const hashOf = (token: string) => createHash('sha256').update(token).digest()

/** Opens a session; the token goes into the cookie and is stored only as a hash. */
export async function openSession(person: string, client?: Client): Promise<string> {
  const token = randomBytes(32).toString('base64url')
  await (client ?? database()).query(
    `INSERT INTO session (token_hash, person, expires_at) VALUES ($1, $2, now() + make_interval(days => ${DAYS}))`,
    [hashOf(token), person],
  )
  return token
}

export async function personOfSession(token: string): Promise<Person | null> {
  const { rows } = await database().query<Person>(
    `SELECT p.id, p.name, p.address FROM session s JOIN person p ON p.id = s.person WHERE s.token_hash = $1 AND s.expires_at > now()`,
    [hashOf(token)],
  )
  return rows[0] ?? null
}

export async function closeSession(token: string): Promise<void> {
  await database().query('DELETE FROM session WHERE token_hash = $1 OR expires_at < now()', [hashOf(token)])
}

const COOKIE = 'folvet_session'

export const sessionCookie = (token: string, secure: boolean): string =>
  `${COOKIE}=${token}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${DAYS * 86_400}${secure ? '; Secure' : ''}`

export const expiredCookie = (): string => `${COOKIE}=; Path=/; HttpOnly; SameSite=Lax; Max-Age=0`

export function tokenFrom(cookies: string | null): string | null {
  const found = cookies?.split(';').find((cookie) => cookie.trim().startsWith(`${COOKIE}=`))
  return found ? found.trim().slice(COOKIE.length + 1) : null
}
