import { type Change, type Edit, type PackedEdit, revertEdits } from '../../core/changes/edit'
import { packEdits, unpackEdits } from '../../core/changes/packed'
import { prepareChange } from '../../core/changes/prepare'
import type { Problem } from '../../core/changes/problem'
import { touchedMaps } from '../../core/changes/touched-maps'
import { areAsSeen } from '../../core/changes/undo'
import { digestEffects } from '../../core/network/digest-effects'
import type { ChangeId } from '../../core/records/ids'
import type { RecordKind } from '../../core/records/kinds'
import type { Records } from '../../core/records/records'
import { problemWithAuthorship } from '../../core/rights/authorship'
import { allows, mayEdit, reachOf } from '../../core/rights/grant'
import { problemWithReach } from '../../core/rights/within-reach'
import { type Client, prepared, sendTransaction, transaction } from '../database'
import { Failure } from '../http/failure'
import { type Limits, limitsOf, loadForLimits } from '../people/limits'
import { grantsOf } from '../people/rights'
import { updateDigests } from '../records/digests'
import { writeRecords } from '../records/tables'
import { announce } from '../telling/announce'
import { committedBefore, type StoredChange } from './history'
import { forgetHot, hotRecords, keepHot, suffices } from './hot-records'
import { inLane } from './lane'
import { loadTouched } from './load-touched'
import { countWritten, statisticsFor } from './statistics'

export interface Author {
  id: string
  name: string
  /** Whether only some maps are open to them: then each change is held against their grants, under the lock. */
  isLimited: boolean
}

/** The author of changes to a collection that is theirs. */
export const unlimited = ({ id, name }: { id: string; name: string }): Author => ({ id, name, isLimited: false })

/** A change as it was sent, with what differs in place of long texts. */
interface SentChange extends Omit<Change, 'edits'> {
  edits: readonly PackedEdit[]
}

export interface Submission {
  change: SentChange
  author: Author
  /** The number of the last change that was known when this one was made; refused as `moved` where there are others since. */
  asOf?: number | null
  /** Refused as `moved` where something that it changes is not as it was seen when the change was made. */
  isExact?: boolean
  /** The id of the first of several changes that are one step of history; null for a change by itself. */
  step?: ChangeId | null
}

export type CommitResult = { ok: true; change: StoredChange } | { ok: false; id: string; problem: Problem }

/**
 * Commits changes of one collection in one transaction, in the order given. A change that fails falls out alone; one
 * that the same person had committed before, known by its id, is answered with the form in which it was stored. Whoever is
 * limited to some maps comes alone: what is open to them can be altered by any change before.
 * Returns a result for each, in the same order. Throws where the database fails: then nothing was committed.
 */
export const commitChanges = (collection: string, submissions: readonly Submission[]): Promise<CommitResult[]> =>
  beginCommit(collection, submissions).results

/**
 * Begins to commit, and says whether it goes at once: then the next changes of the collection may follow before it is known
 * how these end, since they are prepared on what these come to, and fall back where that did not come about. Whoever falls back
 * waits for those `before`: what they add may be what is built on here.
 */
export function beginCommit(
  collection: string,
  submissions: readonly Submission[],
  before: Promise<void> = Promise.resolve(),
): { goesAtOnce: boolean; results: Promise<CommitResult[]> } {
  let atOnce: Promise<Batch | null> | null = null
  const results = async () => {
    atOnce = commitAtOnce(collection, submissions)
    const batch = (await atOnce) ?? (await lookingAfter(before, collection, submissions))
    if (batch.committed.length > 0) announce(collection, batch.committed.at(-1)!.number)
    countWritten(batch.edits.length)
    return batch.results
  }
  const begun = results()
  return { goesAtOnce: atOnce !== null, results: begun }
}

/**
 * Commits without reading, in one round trip, where what is kept from the last commit suffices; null where it does not, where a
 * change is refused, and for a part of something longer, whose author may have lost the right to it since. The counter tells whether that still holds, also where the commit before it was on its way, and
 * ids and ranks that are taken fail by their constraints: it resolves with null then.
 */
function commitAtOnce(collection: string, submissions: readonly Submission[]): Promise<Batch | null> | null {
  if (submissions.some(({ author, step }) => author.isLimited || step)) return null
  const hot = hotRecords(collection)
  if (!hot || !submissions.every(({ change }) => suffices(hot.records, change.edits))) return null
  const { last, records } = hot
  // Whatever goes wrong while it is prepared, some of it has been applied by then.
  forgetHot(collection, records)
  const batch = prepareBatch(records, last, submissions, new Map(), null)
  if (!batch.results.every(({ ok }) => ok)) return null
  keepHot(collection, last, last + batch.committed.length, records)
  return inLane(collection, (client) =>
    sendTransaction(client, () => write(client, collection, last, records, batch)),
  ).then(
    () => batch,
    () => {
      forgetHot(collection, records)
      return null
    },
  )
}

async function lookingAfter(
  before: Promise<void>,
  collection: string,
  submissions: readonly Submission[],
): Promise<Batch> {
  await before
  return commitLooking(collection, submissions)
}

/** Commits with all that is needed read under the lock of the collection. */
async function commitLooking(collection: string, submissions: readonly Submission[]): Promise<Batch> {
  const { batch, last, records } = await transaction(async (client, finish) => {
    // Sent together; the lock comes first, so what the others read is what stands when it is held.
    const limited = submissions.find(({ author }) => author.isLimited)
    const [last, known, records, limits, barred] = await Promise.all([
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
      limited ? limitsOf(client, collection, limited.author.id) : null,
      barredOf(client, collection, submissions),
    ])
    if (limited) await loadForLimits(client, collection, records, limited.change.edits)
    const batch = prepareBatch(records, last, submissions, known, limits, barred)
    if (batch.committed.length > 0) finish(write(client, collection, last, records, batch))
    return { batch, last, records }
  })
  keepHot(collection, last, last + batch.committed.length, records)
  return batch
}

interface Batch {
  results: CommitResult[]
  committed: StoredChange[]
  /** What was committed, change after change. */
  edits: Edit[]
  /** Ids by kind: of records that are new, and of those that were there. */
  created: Touched
  altered: Touched
}
type Touched = Map<RecordKind, Set<string>>

const TAKEN: Problem = { code: 'exists', message: 'Another change has this id already.' }
const UNREAD: Problem = { code: 'unread', message: 'Somebody has written there meanwhile. Please send it whole.' }
const MOVED: Problem = { code: 'moved', message: 'Somebody changed the collection meanwhile. Please try again.' }

const BARRED: Problem = { code: 'forbidden', message: 'You may not change this collection any more.' }

/** Who of the authors of parts of something longer may not edit all of the collection any more. */
async function barredOf(
  client: Client,
  collection: string,
  submissions: readonly Submission[],
): Promise<ReadonlySet<string>> {
  const long = submissions.flatMap(({ author, step }) => (step && !author.isLimited ? author.id : []))
  const people = [...new Set(long)]
  if (people.length === 0) return new Set()
  const given = await grantsOf(client, collection, people)
  return new Set(people.filter((_, i) => !given[i]!.some(({ role, maps }) => maps === null && allows(role, 'editor'))))
}

/** Applies changes one after the other to `records`, in the form in which they are stored. */
function prepareBatch(
  records: Records,
  last: number,
  submissions: readonly Submission[],
  known: Map<string, StoredChange>,
  limits: Limits | null,
  barred: ReadonlySet<string> = new Set(),
): Batch {
  const at = new Date().toISOString()
  const batch: Batch = { results: [], committed: [], edits: [], created: new Map(), altered: new Map() }
  batch.results = submissions.map(({ change, author, asOf = null, isExact = false, step = null }): CommitResult => {
    const before = known.get(change.id)
    if (before)
      return before.person === author.id ? { ok: true, change: before } : { ok: false, id: change.id, problem: TAKEN }
    if (step && barred.has(author.id)) return { ok: false, id: change.id, problem: BARRED }
    if (asOf !== null && asOf !== last + batch.committed.length) return { ok: false, id: change.id, problem: MOVED }
    const { edits: sent, unread } = unpackEdits(records, change.edits)
    if (unread.length > 0) return { ok: false, id: change.id, problem: UNREAD }
    if (isExact && !areAsSeen(records, sent)) return { ok: false, id: change.id, problem: MOVED }
    const result = prepareChange(records, sent, true, change.undoes !== null)
    if (!result.ok) return { ok: false, id: change.id, problem: result.problem }
    const problem =
      (limits && problemWithReach(records, result.edits, limits.grants, limits.homes)) ??
      problemWithAuthorship(records, result.edits, author.id, mayEditIn(limits))
    if (problem) {
      revertEdits(records, result.edits)
      return { ok: false, id: change.id, problem }
    }
    for (const edit of result.edits) {
      note(batch, edit)
      batch.edits.push(edit)
    }
    const maps = touchedMaps(records, result.edits)
    const stored: StoredChange = {
      ...change,
      maps: maps === 'all' ? null : [...maps],
      step,
      edits: packEdits(result.edits, sent),
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

/** Where somebody may edit: everywhere, unless they are limited. */
function mayEditIn(limits: Limits | null): (map: string) => boolean {
  const reach = limits && reachOf(limits.grants, limits.homes)
  return (map) => !reach || mayEdit(reach, map)
}

function note({ created, altered }: Batch, { kind, id, before }: Edit): void {
  const touched = before === null ? created : altered
  if (before !== null && created.get(kind)?.has(id)) return
  const ids = touched.get(kind)
  if (ids) ids.add(id)
  else touched.set(kind, new Set([id]))
}

/** Everything that a batch writes, sent at once. */
const write = (
  client: Client,
  collection: string,
  last: number,
  records: Records,
  batch: Batch,
): Promise<unknown>[] => [
  writeChanges(client, collection, last, batch.committed),
  writeRecords(client, collection, records, batch.created, 'insert'),
  writeRecords(client, collection, records, batch.altered, 'upsert'),
  updateDigests(client, collection, last + batch.committed.length, digestEffects(records, batch.edits)),
  ...statisticsFor(client, batch.edits.length),
]

/** Takes the lock under which a collection is changed, until the transaction ends. Returns the number of its last change. */
export async function lockCounter(client: Client, collection: string): Promise<number> {
  const text = 'SELECT last FROM collection_counter WHERE collection = $1 FOR UPDATE'
  const { rows } = await prepared<{ last: number }>(client, text, [collection])
  // It ended while this was on its way.
  if (!rows[0]) throw new Failure(404, 'There is no such collection any more.')
  return rows[0].last
}

/**
 * Writes the history and moves the counter on; fails where the counter is not at `last` any more. It comes before the
 * records, so that whoever writes holds the lock first.
 */
const WRITE_CHANGES = `
  WITH counted AS (
    UPDATE collection_counter SET last = $3 WHERE collection = $1 AND last = $4 RETURNING 1
  ), written AS (
    INSERT INTO change (collection, number, id, person, person_name, label, undoes, at, edits, maps, step)
    SELECT $1, r.number, r.id, r.person, r."personName", r.label, r.undoes, r.at, r.edits, r.maps, r.step
    FROM jsonb_to_recordset($2::jsonb)
      AS r(number bigint, id uuid, person uuid, "personName" text, label text, undoes uuid, at timestamptz, edits jsonb, maps uuid[], step uuid)
  ) SELECT 1 / (SELECT count(*) FROM counted)`

async function writeChanges(
  client: Client,
  collection: string,
  last: number,
  changes: readonly StoredChange[],
): Promise<void> {
  await prepared(client, WRITE_CHANGES, [collection, JSON.stringify(changes), changes.at(-1)!.number, last])
}
