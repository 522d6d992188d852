import { v7 as uuid } from 'uuid'
import { ChangeId, MapId } from '../core/records/ids'
import { type Emptying, emptying } from '../core/tree/emptying'
import { wholeCollection } from './collections'
import { lockCounter } from './commit/commit-changes'
import { changesAfter } from './commit/history'
import { submitChange } from './commit/queue'
import { authorOf } from './commit/receive-changes'
import { type Client, transaction } from './database'
import { forgetInHistory, noteForgetting } from './forgetting'
import type { Member } from './http/endpoint'
import { Failure } from './http/failure'
import { forgetDigests } from './records/digests'
import { removeRecords } from './records/tables'
import { forgetIndex } from './search/search-index'
import { announce } from './telling/announce'
import { MOST_BEHIND } from './telling/room'

/** How often this is looked at anew because somebody changes the collection meanwhile. */
const MOST_ATTEMPTS = 4

/**
 * Removes maps in the trash for good, all of them for null: with what is on them, from the records and from the history. What
 * leads there is let go of first, by a change like any other; the removal itself is no change and cannot be undone. What goes is
 * found without the lock of the collection; under it only what was changed since is looked at.
 * Returns how many maps and topics there were. Refused with 404 where none of the maps lies in the trash.
 */
export async function emptyTrash(member: Member, only: string | null): Promise<{ maps: number; topics: number }> {
  const { collection } = member
  for (let attempt = 1; attempt <= MOST_ATTEMPTS; attempt++) {
    const { records, number } = await wholeCollection(collection)
    const maps = only ? [MapId.parse(only)] : [...records.all('map')].map(({ id }) => id)
    const { letGo, gone } = emptying(records, maps)
    if (!gone.has('map')) throw new Failure(404, 'There is nothing of this in the trash.')
    if (letGo.length > 0) await letGoOf(member, letGo)
    else {
      const last = await transaction((client) => removeAsOf(client, collection, number, gone))
      if (last === null) continue
      // No number tells of this: whoever listens, and whoever comes back, asks for everything anew.
      announce(collection, last)
      await forgetInHistory(collection)
      return { maps: gone.get('map')!.size, topics: gone.get('topic')?.size ?? 0 }
    }
  }
  throw new Failure(409, 'Somebody is working with what lies in the trash. Nothing was removed; please try again.')
}

async function letGoOf(member: Member, edits: Emptying['letGo']): Promise<void> {
  const change = { id: ChangeId.parse(uuid()), label: 'Let go of what is removed for good', undoes: null, edits }
  const result = await submitChange(member.collection, { change, author: authorOf(member) })
  if (!result.ok) throw new Failure(409, result.problem.message)
}

/** Anything that looks like an id. */
const ID = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g

/** Whether some of these records are named in what was changed after the change with this number. Linear in what was. */
async function isNamedSince(
  client: Client,
  collection: string,
  number: number,
  gone: Emptying['gone'],
): Promise<boolean> {
  const changes = await changesAfter(client, collection, number, MOST_BEHIND)
  const ids = new Set([...gone.values()].flatMap((of) => [...of]))
  const names = (edits: unknown) => [...JSON.stringify(edits).matchAll(ID)].some(([id]) => ids.has(id))
  return changes.length === MOST_BEHIND || changes.some(({ edits }) => edits === null || names(edits))
}

/**
 * Removes records that nobody has named since the change with this number; null where somebody has. Returns the new number of the
 * collection.
 */
async function removeAsOf(
  client: Client,
  collection: string,
  number: number,
  gone: Emptying['gone'],
): Promise<number | null> {
  const last = await lockCounter(client, collection)
  if (last > number && (await isNamedSince(client, collection, number, gone))) return null
  const { rows } = await client.query<{ last: number }>(
    'UPDATE collection_counter SET last = last + $2 WHERE collection = $1 RETURNING last',
    [collection, MOST_BEHIND + 1],
  )
  await noteForgetting(client, collection, gone, last)
  await removeRecords(client, collection, gone)
  await forgetDigests(client, collection, [...gone.get('map')!])
  await forgetIndex(client, collection)
  return rows[0]!.last
}
