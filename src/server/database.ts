import type { Duplex } from 'node:stream'
import pg from 'pg'

// bigint columns (change numbers, file sizes) stay far below 2^53.
pg.types.setTypeParser(pg.types.builtins.INT8, Number)

/**
 * What the database ends by itself, in ms: a statement, a wait for somebody's lock, and a transaction in which nothing is asked. The work
 * of a job on a collection of any size stays below these; what hangs does not hold others for good.
 */
const LIMITS = { statement_timeout: 600_000, lock_timeout: 30_000, idle_in_transaction_session_timeout: 300_000 }

let pool: pg.Pool | null = null

/** The address of the database; the start command sets it. Throws where it is not set. */
export function databaseUrl(): string {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set. Start Folvet with npm start, which runs a database of its own.')
  return url
}

export function database(): pg.Pool {
  if (!pool) {
    // With a pipeline, queries that do not wait for one another share a round trip.
    pool = new pg.Pool({
      connectionString: databaseUrl(),
      max: 12,
      pipeline: true,
      connectionTimeoutMillis: 10_000,
      ...LIMITS,
      // A statement that nobody waits for any more is ended too: its thread may have been.
      options: '-c client_connection_check_interval=5000',
    })
    // A connection that breaks while idle is replaced at the next query; one that breaks at work fails what it works on,
    // and must not end the process besides.
    pool.on('error', () => {})
    pool.on('connect', (client) => client.on('error', () => {}))
  }
  return pool
}

/** Whether an error says that the database is away, starting, or held by somebody else for too long, rather than that it has something against what was asked. */
export function isAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false
  const code = 'code' in error ? String(error.code) : ''
  return (
    /^(08|57P|53300|55P03|25P03|ECONN|EPIPE|ETIMEDOUT)/.test(code) ||
    /Connection terminated|not queryable|timeout exceeded/.test(error.message)
  )
}

export type Client = pg.PoolClient

const names = new Map<string, string>()

/**
 * Runs a statement that each connection prepares once. For texts that are constants of the code: each one stays
 * prepared as long as its connection lives.
 */
export function prepared<Row extends pg.QueryResultRow>(
  on: pg.Pool | Client,
  text: string,
  values: readonly unknown[],
): Promise<pg.QueryResult<Row>> {
  let name = names.get(text)
  if (!name) names.set(text, (name = `s${names.size}`))
  return on.query<Row>({ name, text, values: [...values] })
}

/**
 * Runs work in one transaction; anything thrown rolls it back. `last`, where work returns it, is what it still waits for:
 * COMMIT is sent along with that, and rolls back where any of it failed.
 */
export async function transaction<Result>(
  work: (client: Client, finish: (last: Promise<unknown>[]) => void) => Promise<Result>,
  mode = '',
): Promise<Result> {
  const client = await database().connect()
  let broken: Error | undefined
  let last: Promise<unknown>[] = []
  try {
    sendTogether(client)
    const begun = client.query(`BEGIN ${mode}`)
    begun.catch(() => {})
    const result = await work(client, (writes) => {
      last = writes
    })
    sendTogether(client)
    const committed = client.query('COMMIT')
    await Promise.all([begun, ...last, committed])
    if ((await committed).command !== 'COMMIT') throw new Error('The transaction was rolled back.')
    return result
  } catch (error) {
    await client.query('ROLLBACK').catch((problem: Error) => {
      broken = problem
    })
    throw error
  } finally {
    client.release(broken)
  }
}

/**
 * Commits what `write` asks for, without waiting for transactions that were sent on this connection before: they come to
 * their end first. All of it must be asked for at once. Throws where any of it failed, and then nothing of it is done.
 */
export async function sendTransaction(client: Client, write: () => Promise<unknown>[]): Promise<void> {
  sendTogether(client)
  const sent = [client.query('BEGIN'), ...write()]
  // Rolls back where anything before it failed.
  const committed = client.query('COMMIT')
  await Promise.all([...sent, committed])
  if ((await committed).command !== 'COMMIT') throw new Error('The transaction was rolled back.')
}

/** Lets what is asked of a connection before this turn ends travel in one piece. */
function sendTogether(client: Client): void {
  const { stream } = (client as unknown as { connection: { stream: Duplex } }).connection
  stream.cork()
  process.nextTick(() => stream.uncork())
}

/** Work that reads a consistent state of several tables. */
export const snapshot = <Result>(work: (client: Client) => Promise<Result>): Promise<Result> =>
  transaction(work, 'ISOLATION LEVEL REPEATABLE READ READ ONLY')

export async function closeDatabase(): Promise<void> {
  await pool?.end()
  pool = null
}
