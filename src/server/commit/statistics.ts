import { type Client, database } from '../database'
import { log } from '../http/endpoint'

const TABLES = 'change, map, topic, note, crosslink, weblink, file, attachment, enclosure'

/** Rows that this process has written, and how many until statistics are taken next. */
let written = 0
let next = 500
/** How many it had written when statistics were last taken within a transaction. */
let planned = 0

/**
 * Lets PostgreSQL take statistics as a young database grows. Its own schedule begins a minute later, and plans that
 * are made without statistics read whole collections to find a few records.
 */
export function countWritten(rows: number): void {
  written += rows
  if (written < next) return
  next = written * 4
  database()
    .query(`ANALYZE ${TABLES}`)
    .catch((error: unknown) => log.warn({ error }, 'statistics could not be taken'))
}

/** From so many rows in one transaction on, its constraints are checked with plans made for them. */
const MANY = 500

/**
 * Statistics within a transaction that writes a great deal. Plans for checking constraints are kept by each connection: made
 * while a table was nearly empty, they read a whole collection for every row. New statistics have them made anew; those that
 * were made for half as much will do.
 */
export function statisticsFor(client: Client, rows: number): Promise<unknown>[] {
  if (rows < MANY || (planned > 0 && written + rows < planned * 2)) return []
  planned = written + rows
  return [client.query(`ANALYZE ${TABLES}`)]
}
