import { changeEnclosure, removeEnclosure } from '../../core/commands/enclosures'
import { EnclosureId } from '../../core/records/ids'
import type { CollectionSession } from '../sync/collection-session'
import { workspace } from '../workspace/workspace-store'

/** Opens what can be done to an enclosure: its title, its note, its tone, and taking it away. */
export function openEnclosure(session: CollectionSession, id: string): void {
  const found = session.records.get('enclosure', id)
  if (!found || !session.mayEdit) return
  const enclosure = EnclosureId.parse(id)
  workspace.dialog({
    kind: 'enclosure',
    title: found.title,
    note: found.note,
    tone: found.tone,
    take: (title, note, tone) =>
      session.run((records, making) => changeEnclosure(records, { enclosure, title, note, tone }, making)),
    remove: () => session.run((records, making) => removeEnclosure(records, { enclosure }, making)),
  })
}
