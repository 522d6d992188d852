import { database } from '../database'
import { log } from '../http/endpoint'

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
    .query('ANALYZE change, map, topic, note, crosslink, weblink, file, attachment, enclosure')
    .catch((error: unknown) => log.warn({ error }, 'statistics could not be taken'))
}
