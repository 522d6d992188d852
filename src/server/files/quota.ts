import { MAX_FILE_BYTES } from '../../core/records/file'
import { database } from '../database'
import { Failure } from '../http/failure'
import type { Person } from '../people/person'

const MB = 1024 * 1024
/** Room for the files of one collection: 5 GB, or what FOLVET_FILES_MB says; without an account 200 MB for all one's own. */
const MOST = Number(process.env.FOLVET_FILES_MB ?? 5_120) * MB
const MOST_OF_GUEST = 200 * MB

/** How many bytes a file may have that somebody uploads into a collection. Throws a Failure where there is no room at all. */
export const roomFor = async (collection: string, person: Pick<Person, 'id' | 'address'>): Promise<number> =>
  Math.min(MAX_FILE_BYTES, await roomLeft(collection, person))

/** How many bytes all files together may have that still come into a collection. Throws a Failure where there is no room at all. */
export async function roomLeft(collection: string, { id, address }: Pick<Person, 'id' | 'address'>): Promise<number> {
  const { rows } = await database().query<{ used: number }>(
    `SELECT COALESCE(sum(size), 0)::bigint AS used FROM file
     WHERE collection = $1 OR collection IN (SELECT collection FROM access_grant WHERE person = $2 AND role = 'owner')`,
    [collection, address === null ? id : null],
  )
  const most = address === null ? Math.min(MOST, MOST_OF_GUEST) : MOST
  const room = most - (rows[0]?.used ?? 0)
  if (room > 0) return room
  const more = address === null ? ' With an account there is more.' : ''
  throw new Failure(
    413,
    `There is no room left: ${address === null ? 'your files' : 'the files of a collection'} may have ${most / MB} MB together.${more}`,
  )
}
