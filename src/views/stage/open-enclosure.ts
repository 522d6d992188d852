import { EnclosureId } from '../../core/records/ids'
import type { CollectionSession } from '../sync/collection-session'
import { workspace } from '../workspace/workspace-store'

/** Opens what belongs to an enclosure and what can be done to it. */
export function openEnclosure(session: CollectionSession, id: string): void {
  if (session.records.get('enclosure', id)) workspace.dialog({ kind: 'enclosure', enclosure: EnclosureId.parse(id) })
}
