import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import type { ToldChange } from '../../core/changes/edit'
import type { CollectionDigest, MapDigest } from '../../core/records/snapshot'

/** How many maps are kept in all; those opened last stay. */
const MAPS_KEPT = 60
/** How many changes are kept of a collection: as many as are replayed onto a snapshot. */
const CHANGES_KEPT = 1_000

interface Kept extends DBSchema {
  /** `since` is the number of the change from which on all changes that were told are kept. */
  collections: { key: string; value: { digest: CollectionDigest; since: number; at: number } }
  /** Maps as the server answered, in JSON: what would become thousands of records is not taken apart twice. */
  maps: { key: [string, string]; value: { answer: string; at: number }; indexes: { at: number } }
  told: { key: [string, number]; value: ToldChange }
}

/** What was kept of a collection: enough to show its kept maps as they were when this browser last heard of them. */
export interface KeptCollection {
  digest: CollectionDigest
  /** All changes since `since`, in order. */
  told: ToldChange[]
  since: number
  /** When this browser last heard of the collection, in ms since 1970. */
  at: number
}

let opened: Promise<IDBPDatabase<Kept>> | null = null
const database = (): Promise<IDBPDatabase<Kept>> => {
  opened ??= openDB<Kept>('folvet-kept-maps', 1, {
    upgrade(db) {
      db.createObjectStore('collections')
      db.createObjectStore('maps').createIndex('at', 'at')
      db.createObjectStore('told')
    },
    terminated: () => {
      opened = null
    },
  }).catch((error: unknown) => {
    opened = null
    throw error
  })
  return opened
}

const ofCollection = (collection: string) => IDBKeyRange.bound([collection, 0], [collection, Number.MAX_SAFE_INTEGER])
const mapsOf = (collection: string) => IDBKeyRange.bound([collection, ''], [collection, '\uffff'])

/**
 * Keeps what is known of a collection as a whole. Changes that were told before are kept on as far as they reach up to it, else they are
 * let go of. What was kept for somebody else goes: only whoever signed in last finds something here.
 */
export async function keepDigest(digest: CollectionDigest): Promise<void> {
  const db = await database()
  const tx = db.transaction(['collections', 'maps', 'told'], 'readwrite')
  const { id } = digest.collection
  const [collections, maps, told] = [tx.objectStore('collections'), tx.objectStore('maps'), tx.objectStore('told')]
  const before = await collections.getAll()
  if (before.some((kept) => kept.digest.person !== digest.person))
    await Promise.all([collections.clear(), maps.clear(), told.clear()])
  const known = before.find((kept) => kept.digest.collection.id === id && kept.digest.person === digest.person)
  const last = await told.openKeyCursor(ofCollection(id), 'prev')
  const isHeard = known !== undefined && Math.max(known.digest.number, last?.key[1] ?? 0) >= digest.number
  if (!isHeard) await told.delete(ofCollection(id))
  await collections.put({ digest, since: isHeard ? known.since : digest.number, at: Date.now() }, id)
  await tx.done
}

/** Keeps what is known now of all maps, of a collection that is kept. */
export async function keepRows(collection: string, rows: readonly MapDigest[]): Promise<void> {
  const tx = (await database()).transaction('collections', 'readwrite')
  const known = await tx.store.get(collection)
  if (known) await tx.store.put({ ...known, digest: { ...known.digest, maps: [...rows] }, at: Date.now() }, collection)
  await tx.done
}

/** Keeps what the server answered about a map; the one opened the longest ago gives way. */
export async function keepMap(collection: string, map: string, answer: string): Promise<void> {
  const tx = (await database()).transaction('maps', 'readwrite')
  await tx.store.put({ answer, at: Date.now() }, [collection, map])
  let tooMany = (await tx.store.count()) - MAPS_KEPT
  for (let oldest = await tx.store.index('at').openCursor(); oldest && tooMany > 0; oldest = await oldest.continue()) {
    await oldest.delete()
    tooMany--
  }
  await tx.done
}

/** Keeps changes as they were told. One that is there with its edits stays, as other windows hold other maps. */
export async function keepTold(collection: string, changes: readonly ToldChange[]): Promise<void> {
  const tx = (await database()).transaction(['collections', 'told'], 'readwrite')
  const [collections, told] = [tx.objectStore('collections'), tx.objectStore('told')]
  for (const change of changes) {
    const key: [string, number] = [collection, change.number]
    if (change.edits || !(await told.get(key))) await told.put(change, key)
  }
  let tooMany = (await told.count(ofCollection(collection))) - CHANGES_KEPT
  let since = 0
  for (
    let first = await told.openCursor(ofCollection(collection));
    first && tooMany > 0;
    first = await first.continue()
  ) {
    since = first.value.number
    await first.delete()
    tooMany--
  }
  const known = await collections.get(collection)
  if (known) await collections.put({ ...known, since: Math.max(known.since, since), at: Date.now() }, collection)
  await tx.done
}

/** What is kept of a collection; null where that is nothing. */
export async function keptCollection(collection: string): Promise<KeptCollection | null> {
  const db = await database()
  const known = await db.get('collections', collection)
  if (!known) return null
  const told = await db.getAll('told', ofCollection(collection))
  return { ...known, told: told.filter(({ number }) => number > known.since) }
}

/** What the server answered about a map, in JSON; null where that was not kept. */
export async function keptMap(collection: string, map: string): Promise<string | null> {
  return (await (await database()).get('maps', [collection, map]))?.answer ?? null
}

/** Lets go of a map that is not open to this person any more. */
export async function forgetKeptMap(collection: string, map: string): Promise<void> {
  await (await database()).delete('maps', [collection, map])
}

/** Lets go of a collection. */
export async function forgetKeptCollection(collection: string): Promise<void> {
  const tx = (await database()).transaction(['collections', 'maps', 'told'], 'readwrite')
  await Promise.all([
    tx.objectStore('collections').delete(collection),
    tx.objectStore('maps').delete(mapsOf(collection)),
    tx.objectStore('told').delete(ofCollection(collection)),
    tx.done,
  ])
}

/** Lets go of everything: whoever comes next at this computer finds nothing of it. */
export async function forgetKept(): Promise<void> {
  const tx = (await database()).transaction(['collections', 'maps', 'told'], 'readwrite')
  await Promise.all([
    tx.objectStore('collections').clear(),
    tx.objectStore('maps').clear(),
    tx.objectStore('told').clear(),
    tx.done,
  ])
}
