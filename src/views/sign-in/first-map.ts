import { makeMap } from '../../core/commands/maps'
import { CollectionSession } from '../sync/collection-session'

/** Makes the first map of a new collection, with a root that waits for its words. Null where it is refused. */
export async function firstMap(collection: string): Promise<{ session: CollectionSession; map: string } | null> {
  const session = await CollectionSession.start(collection)
  const made = session.run((records, newIds) =>
    makeMap(records, { collection: session.collection.id, title: '' }, newIds),
  )
  const root = session.records.get('topic', made?.[0] ?? null)
  return root ? { session, map: root.place.map } : null
}
