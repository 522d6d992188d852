import type { Emptying } from '../core/tree/emptying'
import { type Client, prepared, transaction } from './database'

/** How many changes are looked through at once, so that nobody waits for it. */
const AT_ONCE = 500

/** What a change is called of which nothing is left: its name can hold words of what was removed. */
const NAMELESS = 'A change of what was removed for good'

/** Notes down what has to go from the history of a collection, up to the change with this number. */
export async function noteForgetting(
  client: Client,
  collection: string,
  gone: Emptying['gone'],
  last: number,
): Promise<void> {
  const ids = [...gone.values()].flatMap((of) => [...of])
  const text = 'INSERT INTO forgetting (collection, records, maps, last) VALUES ($1, $2, $3, $4)'
  await prepared(client, text, [collection, ids, [...(gone.get('map') ?? [])], last])
}

/** One that nobody else is at. */
const NEXT = `
  SELECT id, collection, records, maps, done, last FROM forgetting WHERE $1::uuid IS NULL OR collection = $1
  ORDER BY id LIMIT 1 FOR UPDATE SKIP LOCKED`

const FORGET = `
  UPDATE change SET edits = rest.edits, label = CASE WHEN rest.edits = '[]' THEN $4 ELSE label END
  FROM (
    SELECT number AS kept, (
      SELECT COALESCE(jsonb_agg(edit ORDER BY position), '[]')
      FROM jsonb_array_elements(c.edits) WITH ORDINALITY AS each(edit, position)
      WHERE edit->>'id' NOT IN (SELECT unnest($2::text[]))) AS edits
    FROM change c WHERE collection = $1 AND number > $5 AND number <= $6 AND (maps IS NULL OR maps && $3::uuid[])) rest
  WHERE collection = $1 AND number = rest.kept AND change.edits <> rest.edits`

interface Row {
  id: number
  collection: string
  records: string[]
  maps: string[]
  done: number
  last: number
}

/**
 * Takes what was ever written into what was removed for good out of the changes that wrote it; that there were changes stays. Goes on
 * where it was stopped, in one collection, or in all of them for null.
 */
export async function forgetInHistory(collection: string | null): Promise<void> {
  while (await transaction((client) => forgetPart(client, collection)));
}

async function forgetPart(client: Client, collection: string | null): Promise<boolean> {
  const row = (await prepared<Row>(client, NEXT, [collection])).rows[0]
  if (!row) return false
  const upTo = Math.min(row.done + AT_ONCE, row.last)
  await prepared(client, FORGET, [row.collection, row.records, row.maps, NAMELESS, row.done, upTo])
  if (upTo >= row.last) await prepared(client, 'DELETE FROM forgetting WHERE id = $1', [row.id])
  else await prepared(client, 'UPDATE forgetting SET done = $2 WHERE id = $1', [row.id, upTo])
  return true
}
