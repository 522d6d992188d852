import type { Change } from '../../core/changes/edit'
import type { Records } from '../../core/records/records'
import type { CollectionDigest } from '../../core/records/snapshot'
import { standsOn } from '../../core/rights/standing'

/** What is known of what a person may do: the strongest role, and the role on each map where not all of the collection is open. */
type Known = Pick<CollectionDigest, 'role' | 'roles'>

/** Whether this person may change anything. */
export const mayEdit = ({ role }: Known): boolean => role === 'owner' || role === 'editor'

/** Whether this person may change what stands on a map. */
export const mayEditMap = (known: Known, map: string): boolean =>
  mayEdit(known) && (known.roles === null || known.roles[map] === 'editor' || known.roles[map] === 'owner')

/** Whether this person may say something about the topics of a map. */
export function mayCommentOn({ role, roles }: Known, map: string): boolean {
  const here = roles === null ? role : roles[map]
  return here !== undefined && here !== 'reader'
}

/** Why a person may not make a change, in words; null where they may. Linear in its edits. */
export function barredFrom(known: Known, records: Records, { edits }: Change): string | null {
  if (!mayEdit(known) && edits.some(({ kind }) => kind !== 'comment'))
    return 'Your role in this collection allows reading only.'
  if (known.roles === null) return null
  const isOpen = edits.every(({ kind, id }) => {
    const record = records.get(kind, id)
    const may = kind === 'comment' ? mayCommentOn : mayEditMap
    return !record || [...standsOn(records, kind, record)].every((map) => may(known, map))
  })
  return isOpen ? null : 'This map is open to you for reading only.'
}
