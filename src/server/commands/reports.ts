import { database } from '../database'

/**
 * Keeps what a command reports, by the id of the change that it is about to make: a process that ends in between leaves a
 * report of nothing, which nobody is shown. What was reported with a change that is there already stays.
 */
export const keepReport = (collection: string, change: string, report: unknown): Promise<unknown> =>
  database().query(
    `INSERT INTO report (collection, change, report)
     SELECT $1::uuid, $2::uuid, $3::jsonb WHERE NOT EXISTS (SELECT FROM change c WHERE c.collection = $1 AND c.id = $2)
     ON CONFLICT (collection, change) DO UPDATE SET report = excluded.report`,
    [collection, change, JSON.stringify(report)],
  )

/** What was reported with a change; null where it reported nothing, or was never made. */
export async function reportOf(collection: string, change: string): Promise<unknown> {
  const { rows } = await database().query<{ report: unknown }>(
    `SELECT report FROM report r WHERE collection = $1 AND change = $2
     AND EXISTS (SELECT FROM change c WHERE c.collection = $1 AND c.id = $2)`,
    [collection, change],
  )
  return rows[0]?.report ?? null
}
