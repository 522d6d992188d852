import type { Change, CommittedChange, Edit } from '../../core/changes/edit'
import { prepareChange } from '../../core/changes/prepare'
import type { Problem } from '../../core/changes/problem'
import type { RecordKind } from '../../core/records/kinds'
import { type Client, prepared, transaction } from '../database'
import { writeRecords } from '../records/tables'
import { CHANGE_CHANNEL } from './channel'
import { loadTouched } from './load-touched'
import { countWritten } from './statistics'

export interface Author {
  id: string
  name: string
}

export interface Submission {
  change: Change
  author: Author
}

export type CommitResult = { ok: true; change: CommittedChange } | { ok: false; id: string; problem: Problem }

const ROW = 'number, id, label, undoes, person, person_name AS "personName", at, edits'

interface ChangeRow extends Omit<CommittedChange, 'at'> {
  at: Date
}
const fromRow = (row: ChangeRow): CommittedChange => ({ ...row, at: row.at.toISOString() })

/**
 * Commits changes of one collection in one transaction, in the order given. A change that fails falls out alone; one
 * that was committed before, known by its id, is answered with the form in which it was stored.
 * Returns a result for each, in the same order. Throws where the database fails: then nothing was committed.
 */
export async function commitChanges(collection: string, submissions: readonly Submission[]): Promise<CommitResult[]> {
  let rows = 0
  const results = await transaction(async (client) => {
    // Sent together; the lock comes first, so what the others read is what stands when it is held.
    const [last, known, records] = await Promise.all([
      lockCounter(client, collection),
      committedBefore(
        client,
        collection,
        submissions.map(({ change }) => change.id),
      ),
      loadTouched(
        client,
        collection,
        submissions.flatMap(({ change }) => change.edits),
      ),
    ])
    const touched = new Map<RecordKind, Set<string>>()
    const at = new Date().toISOString()
    const committed: CommittedChange[] = []
    const outcome = submissions.map(({ change, author }): CommitResult => {
      const before = known.get(change.id)
      if (before) return { ok: true, change: before }
      const result = prepareChange(records, change.edits, true)
      if (!result.ok) return { ok: false, id: change.id, problem: result.problem }
      touch(touched, result.edits)
      rows += result.edits.length
      const number = last + committed.length + 1
      const stored: CommittedChange = {
        ...change,
        edits: result.edits,
        number,
        person: author.id,
        personName: author.name,
        at,
      }
      committed.push(stored)
      known.set(change.id, stored)
      return { ok: true, change: stored }
    })
    if (committed.length > 0) {
      await Promise.all([
        writeRecords(client, collection, records, touched),
        writeChanges(client, collection, committed),
      ])
    }
    return outcome
  })
  countWritten(rows)
  return results
}

function touch(touched: Map<RecordKind, Set<string>>, edits: readonly Edit[]): void {
  for (const { kind, id } of edits) {
    const ids = touched.get(kind)
    if (ids) ids.add(id)
    else touched.set(kind, new Set([id]))
  }
}

async function lockCounter(client: Client, collection: string): Promise<number> {
  const text = 'SELECT last FROM collection_counter WHERE collection = $1 FOR UPDATE'
  const { rows } = await prepared<{ last: number }>(client, text, [collection])
  if (!rows[0]) throw new Error('There is no such collection.')
  return rows[0].last
}

async function committedBefore(
  client: Client,
  collection: string,
  ids: string[],
): Promise<Map<string, CommittedChange>> {
  const text = `SELECT ${ROW} FROM change WHERE collection = $1 AND id = ANY($2)`
  const { rows } = await prepared<ChangeRow>(client, text, [collection, ids])
  return new Map(rows.map((row) => [row.id, fromRow(row)]))
}

/** Writes the history, moves the counter on, and wakes whoever listens when the transaction is committed. */
const WRITE_CHANGES = `
  WITH written AS (
    INSERT INTO change (collection, number, id, person, person_name, label, undoes, at, edits)
    SELECT $1, r.number, r.id, r.person, r."personName", r.label, r.undoes, r.at, r.edits
    FROM jsonb_to_recordset($2::jsonb)
      AS r(number bigint, id uuid, person uuid, "personName" text, label text, undoes uuid, at timestamptz, edits jsonb)
  ), counted AS (UPDATE collection_counter SET last = $3 WHERE collection = $1)
  SELECT pg_notify($4, $5)`

async function writeChanges(client: Client, collection: string, changes: readonly CommittedChange[]): Promise<void> {
  const { number } = changes.at(-1)!
  await prepared(client, WRITE_CHANGES, [
    collection,
    JSON.stringify(changes),
    number,
    CHANGE_CHANNEL,
    `${collection}:${number}`,
  ])
}

/** Committed changes after `number`, oldest first, at most `limit`. */
export async function changesAfter(
  client: Client,
  collection: string,
  number: number,
  limit: number,
): Promise<CommittedChange[]> {
  const { rows } = await client.query<ChangeRow>(
    `SELECT ${ROW} FROM change WHERE collection = $1 AND number > $2 ORDER BY number LIMIT $3`,
    [collection, number, limit],
  )
  return rows.map(fromRow)
}

/** A person's newest changes, oldest first. */
export async function changesBy(
  client: Client,
  collection: string,
  person: string,
  limit: number,
): Promise<CommittedChange[]> {
  const { rows } = await client.query<ChangeRow>(
    `SELECT ${ROW} FROM change WHERE collection = $1 AND person = $2 ORDER BY number DESC LIMIT $3`,
    [collection, person, limit],
  )
  return rows.reverse().map(fromRow)
}
