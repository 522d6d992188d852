import { makeMap } from '../../core/commands/maps'
import { CollectionSession } from '../sync/collection-session'

/** Makes the first map of a new collection, with a root that waits for its words. Returns its address, when it is saved. */
export async function firstMap(collection: string): Promise<string> {
  const session = await CollectionSession.start(collection)
  const made = session.run((records, newIds) =>
    makeMap(records, { collection: session.collection.id, title: '' }, newIds),
  )
  await session.whenSaved()
  const root = session.records.get('topic', made?.[0] ?? null)
  return root ? `/c/${collection}/m/${root.place.map}` : `/c/${collection}`
}
