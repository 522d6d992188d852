import type { z } from 'zod'
import type { JobState, ToldJob } from '../../core/records/snapshot'
import { type Client, database, prepared, transaction } from '../database'
import { Failure } from '../http/failure'

/** How long a process has a job to itself without saying again that it is at it, in s. */
const LEASE_S = 10
/** After so many processes ended over a job, it is given up; after so many, taking back what was done of it is. */
const MOST_ATTEMPTS = { running: 3, ending: 8 }
/** How long a finished job is told, in s, and kept, in days. */
const TOLD_S = 30
const KEPT_DAYS = 7

export interface JobAsked {
  id: string
  collection: string
  person: { id: string; name: string }
  kind: string
  /** What is being done, as a person reads it: "Publish Vennmoor". */
  label: string
  input: unknown
}

/** A job in the hands of this process. */
export interface HeldJob {
  id: string
  collection: string
  person: string
  personName: string
  kind: string
  label: string
  input: unknown
  state: 'running' | 'ending'
  fence: number
  /** Why it ends, where it failed; empty where it was cancelled, or goes on. */
  message: string
}

/** Somebody else has the job now, or it was ended: what comes after this is not written. */
export class LostJob extends Error {
  constructor() {
    super('This job is not in the hands of this process any more.')
  }
}

/** Most jobs of one person that wait or go on: what they bring in is kept until then. */
const MOST_OPEN = 10

/** Throws a Failure where somebody has as many jobs under way as they may. */
export async function checkRoomForJob(person: string): Promise<void> {
  const text = `SELECT count(*)::int AS open FROM job WHERE person = $1 AND state IN ('waiting', 'running', 'ending')`
  const { rows } = await database().query<{ open: number }>(text, [person])
  if (rows[0]!.open >= MOST_OPEN)
    throw new Failure(429, `You have ${MOST_OPEN} jobs under way. Wait until one of them has ended.`)
}

/** Adds a job. False where there is one of this id, or one that it cannot run beside. */
export async function addJob({ id, collection, person, kind, label, input }: JobAsked): Promise<boolean> {
  const { rowCount } = await database().query(
    `INSERT INTO job (id, collection, person, person_name, kind, label, input, state)
     VALUES ($1, $2, $3, $4, $5, $6, $7, 'waiting') ON CONFLICT DO NOTHING`,
    [id, collection, person.id, person.name, kind, label, JSON.stringify(input)],
  )
  return rowCount === 1
}

/** Under this lock jobs are taken: two that look at once would each take one of the same collection. */
const TAKING = 'SELECT pg_advisory_xact_lock(7065041)'

const TAKE = `
  UPDATE job SET state = CASE state WHEN 'waiting' THEN 'running' ELSE state END, fence = fence + 1,
         lease_until = now() + make_interval(secs => ${LEASE_S})
  WHERE id = (
    SELECT id FROM job j WHERE (state = 'waiting' OR (state IN ('running', 'ending') AND lease_until < now()))
      AND NOT EXISTS (SELECT 1 FROM job other WHERE other.collection = j.collection AND other.id <> j.id
                        AND other.state IN ('running', 'ending') AND other.lease_until >= now())
    ORDER BY asked_at LIMIT 1 FOR UPDATE SKIP LOCKED)
  RETURNING id, collection, person, person_name AS "personName", kind, label, input, state, fence, message`

/** Takes the next job that nobody is at; one of a collection at a time. Null where there is none. */
export async function takeJob(): Promise<HeldJob | null> {
  return transaction(async (client) => {
    // Each statement sees what was committed before it began: the lock has to be had first.
    await client.query(TAKING)
    const { rows } = await client.query<Omit<HeldJob, 'input'> & { input: string }>(TAKE)
    const [row] = rows
    return row ? { ...row, input: JSON.parse(row.input) } : null
  })
}

/** Whether a job has ended too many processes to be tried again. */
export const isHopeless = ({ fence, state }: HeldJob): boolean => fence > MOST_ATTEMPTS[state]

/** Says how far a job is, and that somebody is still at it. Returns its state; null where it is in other hands. */
export async function holdJob(
  { id, fence }: HeldJob,
  progress: { done: number; total: number } | null,
): Promise<HeldJob['state'] | null> {
  const { rows } = await database().query<{ state: HeldJob['state'] }>(
    `UPDATE job SET lease_until = now() + make_interval(secs => ${LEASE_S}),
            done = COALESCE($3, done), total = COALESCE($4, total)
     WHERE id = $1 AND fence = $2 AND state IN ('running', 'ending') RETURNING state`,
    [id, fence, progress?.done ?? null, progress?.total ?? null],
  )
  return rows[0]?.state ?? null
}

/** Ends a job together with what else `client` writes. Throws a LostJob where it is in other hands, or was cancelled. */
export async function finishJob(client: Client, { id, fence }: HeldJob, result: unknown): Promise<void> {
  const { rowCount } = await client.query(
    `UPDATE job SET state = 'done', done = total, result = $3, lease_until = NULL, plan = NULL, input = '', finished_at = now()
     WHERE id = $1 AND fence = $2 AND state = 'running'`,
    [id, fence, JSON.stringify(result ?? null)],
  )
  if (rowCount !== 1) throw new LostJob()
}

/** Begins to end a job that failed: whoever takes it next takes back what was done of it, and closes it. */
export async function failJob({ id, fence }: HeldJob, message: string): Promise<void> {
  await database().query(
    `UPDATE job SET state = 'ending', message = $3, lease_until = now() WHERE id = $1 AND fence = $2 AND state = 'running'`,
    [id, fence, message],
  )
}

/** Ends a job that came to nothing. */
export async function closeJob({ id, fence }: HeldJob, state: 'failed' | 'cancelled', message: string): Promise<void> {
  await database().query(
    `UPDATE job SET state = $3, message = $4, lease_until = NULL, plan = NULL, input = '', finished_at = now()
     WHERE id = $1 AND fence = $2 AND state IN ('running', 'ending')`,
    [id, fence, state, message],
  )
}

/** Lets somebody else take a job at once. */
export async function letGoOf({ id, fence }: HeldJob): Promise<void> {
  await database().query(
    'UPDATE job SET lease_until = now() WHERE id = $1 AND fence = $2 AND lease_until IS NOT NULL',
    [id, fence],
  )
}

/** Asks that a job ends. One that nobody began ends at once. Returns false where there is none to end. */
export async function cancelJob(collection: string, id: string, person: string | null): Promise<boolean> {
  const { rowCount } = await database().query(
    `UPDATE job SET state = CASE state WHEN 'waiting' THEN 'cancelled' ELSE 'ending' END,
            finished_at = CASE state WHEN 'waiting' THEN now() END
     WHERE collection = $1 AND id = $2 AND ($3::uuid IS NULL OR person = $3) AND state IN ('waiting', 'running')`,
    [collection, id, person],
  )
  return rowCount === 1
}

/** What a job has worked out so far; null before that. */
export async function planOf({ id }: HeldJob): Promise<unknown> {
  const { rows } = await database().query<{ plan: string | null }>('SELECT plan FROM job WHERE id = $1', [id])
  return rows[0]?.plan ? JSON.parse(rows[0].plan) : null
}

export async function keepPlan({ id, fence }: HeldJob, plan: unknown): Promise<void> {
  const { rowCount } = await database().query(
    `UPDATE job SET plan = $3 WHERE id = $1 AND fence = $2 AND state = 'running'`,
    [id, fence, JSON.stringify(plan)],
  )
  if (rowCount !== 1) throw new LostJob()
}

const TOLD = `id, person, kind, label, state, done, total, message`

/** What is looked after every few minutes is told where it is about, not as something that goes on. */
const TELL_JOBS = `
  SELECT ${TOLD} FROM job
  WHERE collection = $1 AND kind <> 'keep calendars in step' AND (finished_at IS NULL OR finished_at > now() - make_interval(secs => ${TOLD_S}))
  ORDER BY asked_at, id`

/** What is being done in a collection, and what has just been done. */
export async function jobsOf(collection: string): Promise<ToldJob[]> {
  const { rows } = await prepared<ToldJob>(database(), TELL_JOBS, [collection])
  return rows
}

/** One job with what came of it; null where there is none. */
export async function jobOf(collection: string, id: string): Promise<(ToldJob & { result: unknown }) | null> {
  const { rows } = await database().query<ToldJob & { result: unknown }>(
    `SELECT ${TOLD}, result FROM job WHERE collection = $1 AND id = $2`,
    [collection, id],
  )
  return rows[0] ?? null
}

/** The newest job of a kind in a collection. */
export async function newestJob(collection: string, kind: string): Promise<ToldJob | null> {
  const { rows } = await database().query<ToldJob>(
    `SELECT ${TOLD} FROM job WHERE collection = $1 AND kind = $2 ORDER BY asked_at DESC, id DESC LIMIT 1`,
    [collection, kind],
  )
  return rows[0] ?? null
}

export async function forgetOldJobs(): Promise<void> {
  await database().query(`DELETE FROM job WHERE finished_at < now() - make_interval(days => ${KEPT_DAYS})`)
}

export const isFinished = (state: z.infer<typeof JobState>): boolean =>
  state === 'done' || state === 'failed' || state === 'cancelled'
