import { readOwnAddress } from '../../core/formats/own-address'
import type { TopicId } from '../../core/records/ids'
import { tellTrouble } from '../app/api'
import { askAround } from '../app/around'
import { readFile } from '../reading/read-file'
import type { CollectionSession } from '../sync/collection-session'
import { useWorkspace, workspace } from '../workspace/workspace-store'
import { showPassage } from './show-passage'

/** Goes where an address inside the note of a topic leads within the collection, down to the words that it names. */
export async function followOwn(session: CollectionSession, address: string, from: TopicId): Promise<void> {
  const own = readOwnAddress(address)
  if (!own) return
  const { active } = useWorkspace.getState()
  if (own.kind === 'map') return workspace.go(active, own.id, null)
  if (own.kind === 'file') return readFile(session, from, own.id, own.page)
  try {
    const map = session.nameOf(own.id)?.map ?? (await askAround(session.id, own.id)).topic.map
    workspace.go(active, map, own.id)
    if (own.passage !== null) showPassage(own.id, own.passage)
  } catch (error) {
    tellTrouble(error)
  }
}
