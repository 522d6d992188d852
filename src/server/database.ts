import pg from 'pg'

// bigint columns (change numbers, file sizes) stay far below 2^53.
pg.types.setTypeParser(pg.types.builtins.INT8, Number)

let pool: pg.Pool | null = null

/** The address of the database; the start command sets it. Throws where it is not set. */
export function databaseUrl(): string {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set. Start Folvet with npm start, which runs a database of its own.')
  return url
}

export function database(): pg.Pool {
  if (!pool) {
    pool = new pg.Pool({ connectionString: databaseUrl(), max: 12 })
    // A connection that breaks while idle is replaced at the next query.
    pool.on('error', () => {})
  }
  return pool
}

export type Client = pg.PoolClient

/** Runs work in one transaction; anything thrown rolls it back. */
export async function transaction<Result>(work: (client: Client) => Promise<Result>, mode = ''): Promise<Result> {
  const client = await database().connect()
  let broken: Error | undefined
  try {
    await client.query(`BEGIN ${mode}`)
    const result = await work(client)
    await client.query('COMMIT')
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

/** Work that reads a consistent state of several tables. */
export const snapshot = <Result>(work: (client: Client) => Promise<Result>): Promise<Result> =>
  transaction(work, 'ISOLATION LEVEL REPEATABLE READ READ ONLY')

export async function closeDatabase(): Promise<void> {
  await pool?.end()
  pool = null
}
