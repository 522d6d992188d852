import { v7 as uuid } from 'uuid'
import { type Client, database, transaction } from '../database'
import { removeUnusedOf } from '../files/contents'
import { hashPassword, passwordMatches } from './passwords'
import type { Person } from './person'
import { openSession } from './sessions'

const COLUMNS = 'id, name, address'

export async function createGuest(client: Client): Promise<Person> {
  const { rows } = await client.query<Person>(
    `INSERT INTO person (id, name) VALUES ($1, 'Guest') RETURNING ${COLUMNS}`,
    [uuid()],
  )
  return rows[0]!
}

/**
 * Gives a guest a name, an address and a password, and a new session: those of the guest end. Returns its token; null
 * where another person has the address.
 */
export async function claimGuest(
  person: string,
  name: string,
  address: string,
  password: string,
): Promise<string | null> {
  const hash = await hashPassword(password)
  return transaction(async (client) => {
    const { rowCount } = await client.query(
      `UPDATE person SET name = $2, address = $3, password_hash = $4
       WHERE id = $1 AND address IS NULL AND NOT EXISTS (SELECT 1 FROM person WHERE lower(address) = lower($3))`,
      [person, name, address, hash],
    )
    if (rowCount !== 1) return null
    await client.query('DELETE FROM session WHERE person = $1', [person])
    return openSession(person, client)
  })
}

export async function createPerson(client: Client, name: string, address: string, password: string): Promise<Person> {
  const { rows } = await client.query<Person>(
    `INSERT INTO person (id, name, address, password_hash) VALUES ($1, $2, $3, $4) RETURNING ${COLUMNS}`,
    [uuid(), name, address, await hashPassword(password)],
  )
  return rows[0]!
}

/** Null where address and password do not belong together; takes as long where there is no such address. */
export async function personByPassword(address: string, password: string): Promise<Person | null> {
  const { rows } = await database().query<Person & { password_hash: string }>(
    `SELECT ${COLUMNS}, password_hash FROM person WHERE lower(address) = lower($1)`,
    [address],
  )
  const found = rows[0]
  if (!(await passwordMatches(found?.password_hash ?? null, password)) || !found) return null
  return { id: found.id, name: found.name, address: found.address }
}

export async function personByAddress(address: string): Promise<Person | null> {
  const { rows } = await database().query<Person>(`SELECT ${COLUMNS} FROM person WHERE lower(address) = lower($1)`, [
    address,
  ])
  return rows[0] ?? null
}

/**
 * Removes a guest and every collection that is theirs alone, with all its content. Nothing is left to restore. Content that
 * somebody uploads just now stays until it is clear whether they use it.
 */
export async function endGuest(client: Client, person: string): Promise<void> {
  const { rows } = await client.query<{ id: string }>(
    `SELECT m.collection AS id FROM access_grant m WHERE m.person = $1 AND m.role = 'owner'
       AND NOT EXISTS (SELECT 1 FROM access_grant o WHERE o.collection = m.collection AND o.person <> $1 AND o.role = 'owner')`,
    [person],
  )
  const collections = rows.map(({ id }) => id)
  const { rows: contents } = await client.query<{ sha256: string }>(
    'SELECT DISTINCT sha256 FROM file WHERE collection = ANY($1)',
    [collections],
  )
  await client.query('DELETE FROM collection WHERE id = ANY($1)', [collections])
  await client.query('DELETE FROM person WHERE id = $1 AND address IS NULL', [person])
  await removeUnusedOf(
    client,
    contents.map(({ sha256 }) => sha256),
  )
}
