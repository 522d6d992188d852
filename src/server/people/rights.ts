import type { Edit } from '../../core/changes/edit'
import type { Problem } from '../../core/changes/problem'
import type { Role } from '../../core/records/snapshot'
import { database } from '../database'

const ORDER: readonly Role[] = ['reader', 'commenter', 'editor', 'owner']

export const allows = (role: Role, needed: Role): boolean => ORDER.indexOf(role) >= ORDER.indexOf(needed)

/** The role of a person in a collection; null for somebody who is no member, and where there is no such collection. */
export async function roleIn(person: string, collection: string): Promise<Role | null> {
  const { rows } = await database().query<{ role: Role }>(
    'SELECT role FROM membership WHERE person = $1 AND collection = $2',
    [person, collection],
  )
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
