import { type Client, database } from '../database'
import { log } from '../http/endpoint'

const TABLES = 'change, map, topic, note, crosslink, weblink, file, attachment, enclosure'

/** Rows that this process has written, and how many until statistics are taken next. */
let written = 0
let next = 500

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
 * while a table was nearly empty, they read a whole collection for every row. New statistics have them made anew.
 */
export const statisticsFor = (client: Client, rows: number): Promise<unknown>[] =>
  rows < MANY ? [] : [client.query(`ANALYZE ${TABLES}`)]
