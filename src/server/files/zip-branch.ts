import { Readable } from 'node:stream'
import yazl from 'yazl'
import { fileNameFrom } from '../../core/records/file-name'
import type { TopicId } from '../../core/records/ids'
import { mayRead } from '../../core/rights/grant'
import { snapshot } from '../database'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import type { Reply } from '../http/reply'
import { readContent } from './contents'
import { dispositionOf } from './serve-content'

const HEAD = `
  SELECT t.text, t.map FROM topic t JOIN map m ON m.collection = $1 AND m.id = t.map AND NOT m.trashed
  WHERE t.collection = $1 AND t.id = $2 AND NOT t.trashed`
const FILES = `
  WITH RECURSIVE branch(id) AS (
    SELECT $2::uuid
    UNION SELECT t.id FROM branch JOIN topic t ON t.collection = $1 AND t.parent = branch.id AND NOT t.trashed
  ) SELECT DISTINCT ON (f.sha256, f.name) f.sha256, f.name, f.size::float8 AS size
  FROM branch JOIN attachment a ON a.collection = $1 AND a.topic = branch.id AND NOT a.trashed
  JOIN file f ON f.collection = $1 AND f.id = a.file AND NOT f.trashed
  ORDER BY f.sha256, f.name, f.id`

/** The files in the branch of a topic in one archive, streamed as it is packed. Of equal names the later ones are numbered. */
export async function zipBranch({ collection, reach }: Member, topic: TopicId): Promise<Reply> {
  const given = [collection, topic]
  const { head, files } = await snapshot(async (client) => ({
    head: (await client.query<{ text: string; map: string }>(HEAD, given)).rows[0],
    files: (await client.query<{ sha256: string; name: string; size: number }>(FILES, given)).rows,
  }))
  if (!head || !mayRead(reach, head.map))
    throw new Failure(404, 'There is no such topic here, or it is not open to you.')
  const folder = fileNameFrom(head.text || 'files')
  const zip = new yazl.ZipFile()
  const taken = new Set<string>()
  // Read when its turn comes: however slow the reader, one piece of one file is held.
  for (const { sha256, name, size } of files.sort((a, b) => (a.name < b.name ? -1 : 1)))
    zip.addReadStreamLazy(`${folder}/${freeName(name, taken)}`, { size, mode: 0o644 }, (ready) =>
      ready(null, Readable.from(readContent(sha256, 0, size - 1))),
    )
  zip.end()
  return {
    status: 200,
    headers: {
      'Content-Type': 'application/zip',
      'Content-Disposition': dispositionOf('attachment', `${folder}.zip`),
      'Cache-Control': 'private, no-cache',
    },
    body: zip.outputStream as Readable,
  }
}

function freeName(name: string, taken: Set<string>): string {
  const dot = name.lastIndexOf('.')
  const [stem, ending] = dot > 0 ? [name.slice(0, dot), name.slice(dot)] : [name, '']
  let free = name
  for (let number = 2; taken.has(free.toLowerCase()); number++) free = `${stem} (${number})${ending}`
  taken.add(free.toLowerCase())
  return free
}
