import { LRUCache } from 'lru-cache'
import type pg from 'pg'
import type { Edit } from '../../core/changes/edit'
import type { Problem } from '../../core/changes/problem'
import type { Role } from '../../core/records/snapshot'
import { everywhere, type Grant, type Homes, type Reach, reachOf } from '../../core/rights/grant'
import { type Client, database, prepared } from '../database'

/** Roles in a whole collection that were looked up a moment ago; one that is changed elsewhere counts two seconds more. */
const recent = new LRUCache<string, Reach>({ max: 10_000, ttl: 2_000 })

/** To be called where a grant was altered in this process. */
export const forgetRoles = (): void => recent.clear()

const GRANTS = `
  SELECT position, role, maps, with_child_maps AS "withChildMaps"
  FROM unnest($2::uuid[]) WITH ORDINALITY AS asked(person, position)
  JOIN open_grant ON open_grant.person = asked.person AND open_grant.collection = $1`

/** What each of some people was given in a collection, in the order of the people. */
export async function grantsOf(
  on: pg.Pool | Client,
  collection: string,
  people: readonly string[],
): Promise<(readonly Grant[])[]> {
  const { rows } = await prepared<Grant & { position: number }>(on, GRANTS, [collection, people])
  const given: Grant[][] = people.map(() => [])
  for (const { position, role, maps, withChildMaps } of rows) given[position - 1]!.push({ role, maps, withChildMaps })
  return given
}

const HOMES = `
  SELECT m.id AS map, doorway.map AS parent FROM map m
  CROSS JOIN LATERAL (SELECT map FROM topic WHERE collection = $1 AND id = m.home_doorway LIMIT 1) doorway
  WHERE m.collection = $1 AND m.home_doorway IS NOT NULL`

/** The ways home in a collection. Linear in its maps. */
export async function homesOf(on: pg.Pool | Client, collection: string): Promise<Homes> {
  const { rows } = await prepared<{ map: string; parent: string }>(on, HOMES, [collection])
  return new Map(rows.map(({ map, parent }) => [map, parent]))
}

const needsHomes = (grants: readonly Grant[]) => grants.some(({ withChildMaps }) => withChildMaps)

/** What is open in a collection to each of some people, in their order. */
export async function reachesOf(on: pg.Pool | Client, collection: string, people: readonly string[]): Promise<Reach[]> {
  const given = await grantsOf(on, collection, people)
  const homes: Homes = given.some(needsHomes) ? await homesOf(on, collection) : new Map()
  return given.map((grants) => reachOf(grants, homes))
}

/** What is open to a person in a collection; nothing where there is no such collection. */
export async function reachIn(person: string, collection: string): Promise<Reach> {
  const key = `${person} ${collection}`
  const known = recent.get(key)
  if (known) return known
  const [reach] = await reachesOf(database(), collection, [person])
  // What hangs on the network of maps can be altered by any change: it is always asked for.
  if (reach!.everywhere && reach!.maps.size === 0) recent.set(key, everywhere(reach!.everywhere))
  return reach!
}

/** Edits that an editor must not send: files come by upload only, and the collection itself goes with its owner. */
export function forbiddenEdit(edits: readonly Edit[], role: Role | null, collection: string): Problem | null {
  for (const edit of edits) {
    if (
      edit.kind === 'file' &&
      (edit.before === null || Object.keys(edit.after).some((field) => field !== 'name' && field !== 'trashed'))
    )
      return { code: 'forbidden', message: 'Files are added by uploading them.' }
    if (edit.kind !== 'collection') continue
    if (edit.id !== collection || edit.before === null)
      return { code: 'forbidden', message: 'A change belongs to one collection.' }
    if ('trashed' in edit.after && role !== 'owner')
      return { code: 'forbidden', message: 'Only the owner can do this.' }
  }
  return null
}
