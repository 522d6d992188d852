import { LRUCache } from 'lru-cache'
import type { Edit } from '../../core/changes/edit'
import type { Problem } from '../../core/changes/problem'
import type { Role } from '../../core/records/snapshot'
import { database, prepared } from '../database'

const ORDER: readonly Role[] = ['reader', 'commenter', 'editor', 'owner']

export const allows = (role: Role, needed: Role): boolean => ORDER.indexOf(role) >= ORDER.indexOf(needed)

/** Roles that were looked up a moment ago; one that is changed counts at most two seconds more. */
const recent = new LRUCache<string, Role>({ max: 10_000, ttl: 2_000 })

/** The role of a person in a collection; null for somebody who is no member, and where there is no such collection. */
export async function roleIn(person: string, collection: string): Promise<Role | null> {
  const key = `${person} ${collection}`
  const known = recent.get(key)
  if (known) return known
  const text = 'SELECT role FROM membership WHERE person = $1 AND collection = $2'
  const { rows } = await prepared<{ role: Role }>(database(), text, [person, collection])
  if (rows[0]) recent.set(key, rows[0].role)
  return rows[0]?.role ?? null
}

/** Edits that an editor must not send: files come by upload only, and the collection itself goes with its owner. */
export function forbiddenEdit(edits: readonly Edit[], role: Role, collection: string): Problem | null {
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
