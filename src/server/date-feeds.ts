import { createHash, randomBytes } from 'node:crypto'
import { strongestOf } from '../core/rights/grant'
import { database } from './database'
import { calendarFor } from './dates'
import type { Member } from './http/endpoint'
import { Failure } from './http/failure'
import type { Reply } from './http/reply'
import { reachIn } from './people/rights'

const hashOf = (secret: string) => createHash('sha256').update(secret).digest()

/** Whether somebody has an address at which their days can be fetched, and when that was done last. */
export async function feedOf({ collection, person }: Member): Promise<{ made: boolean; fetchedAt: string | null }> {
  const { rows } = await database().query<{ fetchedAt: string | null }>(
    'SELECT fetched_at AS "fetchedAt" FROM date_feed WHERE collection = $1 AND person = $2',
    [collection, person.id],
  )
  return { made: rows.length > 0, fetchedAt: rows[0]?.fetchedAt ?? null }
}

/** Makes an address at which whoever knows it sees the days that this person may see; one that was made before ends. Told once. */
export async function makeFeed({ collection, person }: Member): Promise<{ path: string }> {
  const secret = randomBytes(24).toString('base64url')
  await database().query(
    `INSERT INTO date_feed (secret_hash, collection, person) VALUES ($1, $2, $3)
     ON CONFLICT (collection, person) DO UPDATE SET secret_hash = excluded.secret_hash, made_at = now(), fetched_at = NULL`,
    [hashOf(secret), collection, person.id],
  )
  return { path: `/feeds/${secret}/dates.ics` }
}

export async function endFeed({ collection, person }: Member): Promise<void> {
  await database().query('DELETE FROM date_feed WHERE collection = $1 AND person = $2', [collection, person.id])
}

const FEED = `
  UPDATE date_feed f SET fetched_at = now() FROM person p WHERE f.secret_hash = $1 AND p.id = f.person
  RETURNING f.collection, p.id, p.name, p.address`

/** The days behind an address with a secret: what its person may see now. Nothing where it was taken back, or they may see nothing. */
export async function serveFeed(secret: string, origin: string): Promise<Reply> {
  const { rows } = await database().query<{ collection: string; id: string; name: string; address: string | null }>(
    FEED,
    [hashOf(secret)],
  )
  const found = rows[0]
  const reach = found && (await reachIn(found.id, found.collection))
  const role = reach && strongestOf(reach)
  if (!found || !role) throw new Failure(404, 'This address leads nowhere: it was taken back.')
  const { collection, ...person } = found
  return calendarFor({ person, role, reach, collection }, null, origin)
}
