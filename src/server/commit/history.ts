import type { CommittedChange, Edit, ToldChange } from '../../core/changes/edit'
import { isPacked, unpackBackwards } from '../../core/changes/packed'
import type { ChangeId, MapId } from '../../core/records/ids'
import { Records } from '../../core/records/records'
import { type Client, database, prepared } from '../database'
import { GIVEN, loadByIds } from '../records/tables'

const ROW = 'number, id, label, undoes, person, person_name AS "personName", at, edits, maps, step'

/** A change with the maps on which it is seen; null for all of them. */
export interface StoredChange extends CommittedChange {
  maps: MapId[] | null
  step: ChangeId | null
}

interface ChangeRow extends Omit<StoredChange, 'at'> {
  at: Date
}
const fromRow = (row: ChangeRow): StoredChange => ({ ...row, at: row.at.toISOString() })

/** Those of some changes that are stored, by their ids. */
export async function committedBefore(
  client: Client,
  collection: string,
  ids: string[],
): Promise<Map<string, StoredChange>> {
  const text = `SELECT ${ROW} FROM change WHERE collection = $1 AND id = ANY($2)`
  const { rows } = await prepared<ChangeRow>(client, text, [collection, ids])
  return new Map(rows.map((row) => [row.id, fromRow(row)]))
}

/** A committed change by its id; null where there is none in this collection. */
export async function changeOf(collection: string, id: string): Promise<StoredChange | null> {
  const text = `SELECT ${ROW} FROM change WHERE collection = $1 AND id = $2`
  const { rows } = await prepared<ChangeRow>(database(), text, [collection, id])
  return rows[0] ? fromRow(rows[0]) : null
}

/** A committed change with its texts whole, where these can be read. */
export type WholeChange = StoredChange & { edits: Edit[] }

/** The changes of a step, oldest first, with their texts whole. */
export async function changesOfStep(client: Client, collection: string, step: string): Promise<WholeChange[]> {
  // The first was sent before it was known whether others would follow.
  const text = `SELECT ${ROW} FROM change WHERE collection = $1 AND (step = $2 OR id = $2) ORDER BY number`
  const { rows } = await prepared<ChangeRow>(client, text, [collection, step])
  return wholeChanges(client, collection, rows.map(fromRow))
}

const SINCE = `SELECT ${ROW} FROM change WHERE collection = $1 AND number >= $2 AND edits @> ANY($3::jsonb[]) ORDER BY number DESC`

/**
 * Changes with their texts whole, read backwards from what these texts are now. What belongs to records that are gone is left out. Reads
 * what was written since into the same texts, which is looked for among all changes since.
 */
async function wholeChanges(
  client: Client,
  collection: string,
  changes: readonly StoredChange[],
): Promise<WholeChange[]> {
  const packed = changes.flatMap(({ edits }) => edits.filter((edit) => isPacked([edit])))
  if (packed.length === 0) return changes as WholeChange[]
  const records = new Records()
  for (const { kind, id } of packed) await loadByIds(records, client, kind, collection, GIVEN, [[id]])
  const named = packed.map(({ kind, id }) => JSON.stringify([{ kind, id }]))
  const { rows } = await prepared<ChangeRow>(client, SINCE, [collection, changes[0]!.number, named])
  const whole = new Map(unpackBackwards(records, rows).map(({ number, edits }) => [number, edits]))
  return changes.map((change) => {
    const edits = whole.get(change.number) ?? change.edits
    return { ...change, edits: edits.filter((edit) => !isPacked([edit])) as Edit[] }
  })
}

/** Most bytes of edits, as they are stored, that are read at once. */
const MOST_READ = 2_000_000

/**
 * Committed changes after `number`, oldest first, at most `limit`; those beyond what is read at once without their edits, as whoever
 * hears of them asks for the maps then.
 */
export async function changesAfter(
  client: Client,
  collection: string,
  number: number,
  limit: number,
  mostRead = MOST_READ,
): Promise<ToldChange[]> {
  const text = `
    WITH next AS (
      SELECT number, sum(pg_column_size(edits)) OVER (ORDER BY number) AS bytes
      FROM change WHERE collection = $1 AND number > $2 ORDER BY number LIMIT $3
    ) SELECT ${ROW.replace('edits', 'CASE WHEN bytes <= $4 THEN edits END AS edits')}
    FROM next JOIN change USING (number) WHERE collection = $1 ORDER BY number`
  const { rows } = await prepared<ChangeRow>(client, text, [collection, number, limit, mostRead])
  return rows.map(fromRow)
}

/** Changes with more than so many bytes of edits are told without them. */
const MOST_TOLD = 100_000

/** A person's newest steps, oldest first, each as its first change; large and packed ones, and those of several changes, without their edits. */
export async function changesBy(
  client: Client,
  collection: string,
  person: string,
  limit: number,
): Promise<ToldChange[]> {
  const text = `SELECT number, id, label, undoes, person, person_name AS "personName", at, maps, step,
      CASE WHEN pg_column_size(edits) <= ${MOST_TOLD} AND step IS NULL
        AND NOT EXISTS (SELECT FROM change later WHERE later.collection = change.collection AND later.step = change.id)
        THEN edits END AS edits
    FROM change WHERE collection = $1 AND person = $2 AND (step IS NULL OR step = id) ORDER BY number DESC LIMIT $3`
  const { rows } = await prepared<ChangeRow>(client, text, [collection, person, limit])
  return rows.reverse().map((row) => ({ ...fromRow(row), edits: row.edits && isPacked(row.edits) ? null : row.edits }))
}
