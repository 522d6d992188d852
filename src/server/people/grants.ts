import { createHash, randomBytes } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import type { Role } from '../../core/records/snapshot'
import { Grant } from '../../core/rights/grant'
import { type Client, database, transaction } from '../database'
import { Failure } from '../http/failure'
import { lookWhoMayListen } from '../telling/rooms'
import { personByAddress } from './people'
import type { Person } from './person'
import { forgetRoles } from './rights'

/** A grant as an owner gives it: to the person with an address, or to whoever has a link. */
export const GrantAsked = z.strictObject({
  ...Grant.shape,
  to: z.union([z.strictObject({ address: z.string().max(320) }), z.literal('link')]),
  /** UTC instant in ISO 8601; null for as long as nobody withdraws it. */
  endsAt: z.iso.datetime().nullable(),
})

/** A grant as owners see it. The secret of a link is told once, when it is made. */
interface GivenGrant {
  id: string
  person: { name: string; address: string | null } | null
  role: Role
  maps: string[] | null
  withChildMaps: boolean
  endsAt: string | null
  /** How many people have followed the link. */
  followed: number
}

export async function grantsIn(collection: string): Promise<GivenGrant[]> {
  const { rows } = await database().query<GivenGrant>(
    `SELECT g.id, g.role, g.maps, g.with_child_maps AS "withChildMaps", g.ends_at AS "endsAt",
            CASE WHEN p.id IS NOT NULL THEN json_build_object('name', p.name, 'address', p.address) END AS person,
            (SELECT count(*)::int FROM link_holder h WHERE h.access_grant = g.id) AS followed
     FROM access_grant g LEFT JOIN person p ON p.id = g.person WHERE g.collection = $1 ORDER BY g.given_at, g.id`,
    [collection],
  )
  return rows
}

const hashOf = (secret: string) => createHash('sha256').update(secret).digest()

/** Gives somebody a grant; returns its id, and for a link its secret. Instead of what they had in all of the collection. */
export async function giveGrant(
  collection: string,
  { to, role, maps, withChildMaps, endsAt }: z.infer<typeof GrantAsked>,
): Promise<{ id: string; secret: string | null }> {
  const person = to === 'link' ? null : await personByAddress(to.address)
  if (to !== 'link' && !person) throw new Failure(404, 'Nobody here has this address.')
  if (role === 'owner' && (!person || maps || endsAt))
    throw new Failure(400, 'An owner is a person, of the whole collection, and without an end.')
  const secret = person ? null : randomBytes(24).toString('base64url')
  const id = uuid()
  await altering(collection, async (client) => {
    const { rowCount } = await client.query('SELECT 1 FROM map WHERE collection = $1 AND id = ANY($2)', [
      collection,
      maps ?? [],
    ])
    if (rowCount !== new Set(maps ?? []).size) throw new Failure(400, 'A grant names maps of its collection.')
    if (person && !maps)
      await client.query('DELETE FROM access_grant WHERE collection = $1 AND person = $2 AND maps IS NULL', [
        collection,
        person.id,
      ])
    await client.query(
      `INSERT INTO access_grant (id, collection, person, link_hash, role, maps, with_child_maps, ends_at)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8)`,
      [id, collection, person?.id ?? null, secret && hashOf(secret), role, maps, withChildMaps, endsAt],
    )
  })
  return { id, secret }
}

/**
 * Takes a grant back. What was asked for before is still answered; a role in all of a collection counts at other processes for
 * at most two seconds more (see `rights.ts`), one on single maps is asked for anew each time, and under the lock for a change.
 */
export async function withdrawGrant(collection: string, id: string): Promise<void> {
  await altering(collection, async (client) => {
    const { rowCount } = await client.query('DELETE FROM access_grant WHERE collection = $1 AND id = $2', [
      collection,
      id,
    ])
    if (rowCount !== 1) throw new Failure(404, 'There is no such grant.')
  })
}

/** Alters who may do what under the lock of the collection, so that whoever commits sees it before or after, and not between. */
async function altering(collection: string, work: (client: Client) => Promise<void>): Promise<void> {
  await transaction(async (client) => {
    await client.query('SELECT last FROM collection_counter WHERE collection = $1 FOR UPDATE', [collection])
    await work(client)
    const { rows } = await client.query(`SELECT 1 FROM access_grant WHERE collection = $1 AND role = 'owner' LIMIT 1`, [
      collection,
    ])
    if (rows.length === 0) throw new Failure(409, 'A collection keeps at least one owner.')
  })
  forgetRoles()
  lookWhoMayListen()
}

/** Lets somebody have what a link grants; returns the collection in which that is. */
export async function followLink(person: Person, secret: string): Promise<{ collection: string }> {
  const { rows } = await database().query<{ collection: string }>(
    `WITH found AS (
       SELECT id, collection FROM access_grant WHERE link_hash = $2 AND (ends_at IS NULL OR ends_at > now())
     ), held AS (
       INSERT INTO link_holder (person, access_grant) SELECT $1, id FROM found ON CONFLICT DO NOTHING
     ) SELECT collection FROM found`,
    [person.id, hashOf(secret)],
  )
  if (!rows[0]) throw new Failure(404, 'This link leads nowhere: it has ended, or was taken back.')
  forgetRoles()
  return rows[0]
}
