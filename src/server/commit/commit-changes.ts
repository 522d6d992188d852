import type { Change, CommittedChange, Edit } from '../../core/changes/edit'
import { prepareChange } from '../../core/changes/prepare'
import type { Problem } from '../../core/changes/problem'
import type { RecordKind } from '../../core/records/kinds'
import type { Records } from '../../core/records/records'
import { type Client, prepared, transaction } from '../database'
import { writeRecords } from '../records/tables'
import { announce } from './announce'
import { forgetHot, hotRecords, keepHot, suffices } from './hot-records'
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
  const batch = (await commitAtOnce(collection, submissions)) ?? (await commitLooking(collection, submissions))
  if (batch.committed.length > 0) announce(collection, batch.committed.at(-1)!.number)
  countWritten(batch.rows)
  return batch.results
}

/**
 * Commits without reading, in one round trip, where what is kept from the last commit suffices. The counter tells whether
 * that still holds, and ids and ranks that are taken fail by their constraints: null then, and where a change is refused.
 */
async function commitAtOnce(collection: string, submissions: readonly Submission[]): Promise<Batch | null> {
  const hot = hotRecords(collection)
  if (!hot || !submissions.every(({ change }) => suffices(hot.records, change.edits))) return null
  const { last, records } = hot
  // Until it is known how this ends, nobody else may build on these records.
  forgetHot(collection)
  const batch = prepareBatch(records, last, submissions, new Map())
  if (!batch.results.every(({ ok }) => ok)) return null
  try {
    await transaction(async (client, finish) => {
      finish([writeChanges(client, collection, last, batch.committed), write(client, collection, records, batch)])
    })
  } catch {
    return null
  }
  keepHot(collection, last, last + batch.committed.length, records)
  return batch
}

/** Commits with all that is needed read under the lock of the collection. */
async function commitLooking(collection: string, submissions: readonly Submission[]): Promise<Batch> {
  const { batch, last, records } = await transaction(async (client, finish) => {
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
    const batch = prepareBatch(records, last, submissions, known)
    if (batch.committed.length > 0)
      finish([writeChanges(client, collection, last, batch.committed), write(client, collection, records, batch)])
    return { batch, last, records }
  })
  keepHot(collection, last, last + batch.committed.length, records)
  return batch
}

interface Batch {
  results: CommitResult[]
  committed: CommittedChange[]
  /** Ids by kind: of records that are new, and of those that were there. */
  created: Touched
  altered: Touched
  rows: number
}
type Touched = Map<RecordKind, Set<string>>

/** Applies changes one after the other to `records`, in the form in which they are stored. */
function prepareBatch(
  records: Records,
  last: number,
  submissions: readonly Submission[],
  known: Map<string, CommittedChange>,
): Batch {
  const at = new Date().toISOString()
  const batch: Batch = { results: [], committed: [], created: new Map(), altered: new Map(), rows: 0 }
  batch.results = submissions.map(({ change, author }): CommitResult => {
    const before = known.get(change.id)
    if (before) return { ok: true, change: before }
    const result = prepareChange(records, change.edits, true)
    if (!result.ok) return { ok: false, id: change.id, problem: result.problem }
    for (const edit of result.edits) note(batch, edit)
    batch.rows += result.edits.length
    const stored: CommittedChange = {
      ...change,
      edits: result.edits,
      number: last + batch.committed.length + 1,
      person: author.id,
      personName: author.name,
      at,
    }
    batch.committed.push(stored)
    known.set(change.id, stored)
    return { ok: true, change: stored }
  })
  return batch
}

function note({ created, altered }: Batch, { kind, id, before }: Edit): void {
  const touched = before === null ? created : altered
  if (before !== null && created.get(kind)?.has(id)) return
  const ids = touched.get(kind)
  if (ids) ids.add(id)
  else touched.set(kind, new Set([id]))
}

const write = (client: Client, collection: string, records: Records, { created, altered }: Batch) =>
  Promise.all([
    writeRecords(client, collection, records, created, 'insert'),
    writeRecords(client, collection, records, altered, 'upsert'),
  ])

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

/**
 * Writes the history and moves the counter on; fails where the counter is not at `last` any more. It comes before the
 * records, so that whoever writes holds the lock first.
 */
const WRITE_CHANGES = `
  WITH counted AS (
    UPDATE collection_counter SET last = $3 WHERE collection = $1 AND last = $4 RETURNING 1
  ), written AS (
    INSERT INTO change (collection, number, id, person, person_name, label, undoes, at, edits)
    SELECT $1, r.number, r.id, r.person, r."personName", r.label, r.undoes, r.at, r.edits
    FROM jsonb_to_recordset($2::jsonb)
      AS r(number bigint, id uuid, person uuid, "personName" text, label text, undoes uuid, at timestamptz, edits jsonb)
  ) SELECT 1 / (SELECT count(*) FROM counted)`

async function writeChanges(
  client: Client,
  collection: string,
  last: number,
  changes: readonly CommittedChange[],
): Promise<void> {
  await prepared(client, WRITE_CHANGES, [collection, JSON.stringify(changes), changes.at(-1)!.number, last])
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
