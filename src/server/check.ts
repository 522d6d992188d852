import { crosslinkProblems } from '../core/network/check-links'
import { wholeCollection } from './collections'
import { database } from './database'

/** What is wrong with a collection: links that lead nowhere, maps nobody can reach, files without content. */
export async function checkCollection(collection: string) {
  const { records } = await wholeCollection(collection)
  const { rows } = await database().query<{ id: string; name: string }>(
    `SELECT f.id, f.name FROM file f JOIN content c ON c.sha256 = f.sha256
     WHERE f.collection = $1 AND (SELECT COALESCE(sum(length(bytes)), 0) FROM content_chunk k WHERE k.sha256 = f.sha256) <> f.size`,
    [collection],
  )
  return { ...crosslinkProblems(records, collection), missingFiles: rows }
}
