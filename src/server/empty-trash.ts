import { v7 as uuid } from 'uuid'
import { ChangeId, MapId } from '../core/records/ids'
import { Records } from '../core/records/records'
import { type Emptying, emptying } from '../core/tree/emptying'
import { submitChange } from './commit/queue'
import { authorOf } from './commit/receive-changes'
import { type Client, prepared, transaction } from './database'
import type { Member } from './http/endpoint'
import { Failure } from './http/failure'
import { forgetDigests } from './records/digests'
import { loadCollection, removeRecords } from './records/tables'
import { forgetIndex } from './search/search-index'
import { announce } from './telling/announce'
import { MOST_BEHIND } from './telling/room'

/** How often what leads to the maps is let go of anew because somebody links to them meanwhile. */
const MOST_ATTEMPTS = 4

/**
 * Removes maps in the trash for good, all of them for null: with what is on them, from the records and from the history. What
 * leads there is let go of first, by a change like any other; the removal itself is no change and cannot be undone.
 * Returns how many maps and topics there were. Refused with 404 where none of the maps lies in the trash.
 */
export async function emptyTrash(member: Member, only: string | null): Promise<{ maps: number; topics: number }> {
  for (let attempt = 1; attempt <= MOST_ATTEMPTS; attempt++) {
    const { letGo, removed } = await transaction((client) => removeUnlessNamed(client, member.collection, only))
    if (removed) {
      // No number tells of this: whoever listens, and whoever comes back, asks for everything anew.
      announce(member.collection, removed.last)
      return { maps: removed.gone.get('map')!.size, topics: removed.gone.get('topic')?.size ?? 0 }
    }
    const change = {
      id: ChangeId.parse(uuid()),
      label: 'Let go of what is removed for good',
      undoes: null,
      edits: letGo,
    }
    const result = await submitChange(member.collection, { change, author: authorOf(member) })
    if (!result.ok) throw new Failure(409, result.problem.message)
  }
  throw new Failure(409, 'Somebody is working with what lies in the trash. Nothing was removed; please try again.')
}

interface Attempt {
  letGo: Emptying['letGo']
  removed: { gone: Emptying['gone']; last: number } | null
}

/** Under the lock of the collection, so that nothing comes between looking and removing. */
async function removeUnlessNamed(client: Client, collection: string, only: string | null): Promise<Attempt> {
  await client.query('SELECT last FROM collection_counter WHERE collection = $1 FOR UPDATE', [collection])
  const records = new Records()
  await loadCollection(client, records, collection)
  const maps = only ? [MapId.parse(only)] : [...records.all('map')].map(({ id }) => id)
  const { letGo, gone } = emptying(records, maps)
  if (!gone.has('map')) throw new Failure(404, 'There is nothing of this in the trash.')
  if (letGo.length > 0) return { letGo, removed: null }
  await forgetInHistory(client, collection, gone)
  await removeRecords(client, collection, gone)
  await forgetDigests(client, collection, [...gone.get('map')!])
  await forgetIndex(client, collection)
  const { rows } = await client.query<{ last: number }>(
    'UPDATE collection_counter SET last = last + $2 WHERE collection = $1 RETURNING last',
    [collection, MOST_BEHIND + 1],
  )
  return { letGo, removed: { gone, last: rows[0]!.last } }
}

/** What a change is called of which nothing is left: its name can hold words of what was removed. */
const NAMELESS = 'A change of what was removed for good'

/** Takes what was ever written into these records out of the changes that wrote it; that there were changes stays. */
const FORGET = `
  UPDATE change SET edits = rest.edits, label = CASE WHEN rest.edits = '[]' THEN $4 ELSE label END
  FROM (
    SELECT number AS kept, (
      SELECT COALESCE(jsonb_agg(edit ORDER BY position), '[]')
      FROM jsonb_array_elements(c.edits) WITH ORDINALITY AS each(edit, position)
      WHERE edit->>'id' NOT IN (SELECT unnest($2::text[]))) AS edits
    FROM change c WHERE collection = $1 AND (maps IS NULL OR maps && $3::uuid[])) rest
  WHERE collection = $1 AND number = rest.kept AND change.edits <> rest.edits`

async function forgetInHistory(client: Client, collection: string, gone: Emptying['gone']): Promise<void> {
  const ids = [...gone.values()].flatMap((of) => [...of])
  await prepared(client, FORGET, [collection, ids, [...gone.get('map')!], NAMELESS])
}
