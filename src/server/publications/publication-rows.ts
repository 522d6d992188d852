import type { SiteFile } from '../../site/site'
import { type Client, database, transaction } from '../database'

export interface Publication {
  collection: string
  address: string
  state: 'running' | 'done' | 'failed'
  done: number
  total: number
  message: string
  changeNumber: number
  startedAt: Date
  finishedAt: Date | null
}

const COLUMNS = `collection, address, state, done, total, message, change_number AS "changeNumber",
  started_at AS "startedAt", finished_at AS "finishedAt"`

export async function publicationOf(collection: string): Promise<Publication | null> {
  const { rows } = await database().query<Publication>(`SELECT ${COLUMNS} FROM publication WHERE collection = $1`, [
    collection,
  ])
  return rows[0] ?? null
}

/** Begins a publication. False while another one is running; one that has not moved for a minute counts as broken off. */
export async function beginPublication(collection: string, address: string): Promise<boolean> {
  const { rowCount } = await database().query(
    `INSERT INTO publication (collection, address, state) VALUES ($1, $2, 'running')
     ON CONFLICT (collection) DO UPDATE SET state = 'running', done = 0, total = 0, message = '', started_at = now(), finished_at = NULL
     WHERE publication.state <> 'running' OR publication.started_at < now() - interval '1 minute'`,
    [collection, address],
  )
  return rowCount === 1
}

export async function reportProgress(collection: string, done: number, total: number): Promise<void> {
  await database().query('UPDATE publication SET done = $2, total = $3, started_at = now() WHERE collection = $1', [
    collection,
    done,
    total,
  ])
}

export async function failPublication(collection: string, message: string): Promise<void> {
  await database().query(
    `UPDATE publication SET state = 'failed', message = $2, finished_at = now() WHERE collection = $1`,
    [collection, message],
  )
}

/** Replaces the files of a site and marks the publication as done, all at once: readers never see half a site. */
export async function storeSite(
  client: Client,
  collection: string,
  files: readonly SiteFile[],
  changeNumber: number,
): Promise<void> {
  await client.query('DELETE FROM publication_page WHERE collection = $1', [collection])
  for (const file of files) {
    if ('file' in file)
      await client.query(
        `INSERT INTO publication_page (collection, path, type, content) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING`,
        [collection, file.path, file.file.type, file.file.sha256],
      )
    else
      await client.query(
        `INSERT INTO publication_page (collection, path, type, bytes) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING`,
        [collection, file.path, file.type, typeof file.content === 'string' ? Buffer.from(file.content) : file.content],
      )
  }
  await client.query(
    `UPDATE publication SET state = 'done', done = total, change_number = $2, finished_at = now(), message = '' WHERE collection = $1`,
    [collection, changeNumber],
  )
}

/** Takes a site down. Its address stays with the collection, for when it is published again. */
export async function takeDown(collection: string): Promise<void> {
  await transaction(async (client) => {
    await client.query('DELETE FROM publication_page WHERE collection = $1', [collection])
    await client.query(
      `UPDATE publication SET state = 'done', change_number = 0, message = '', done = 0, total = 0 WHERE collection = $1`,
      [collection],
    )
  })
}

export interface StoredPage {
  path: string
  type: string
  bytes: Buffer | null
  content: string | null
  size: number
}

export async function pageAt(address: string, path: string): Promise<StoredPage | null> {
  const { rows } = await database().query<StoredPage>(
    `SELECT p.path, p.type, p.bytes, p.content, COALESCE(c.size, length(p.bytes)) AS size
     FROM publication s JOIN collection t ON t.id = s.collection AND NOT t.trashed JOIN publication_page p ON p.collection = s.collection LEFT JOIN content c ON c.sha256 = p.content
     WHERE s.address = $1 AND p.path = $2`,
    [address, path],
  )
  return rows[0] ?? null
}

export async function pagePaths(collection: string): Promise<string[]> {
  const { rows } = await database().query<{ path: string }>(
    'SELECT path FROM publication_page WHERE collection = $1 ORDER BY path',
    [collection],
  )
  return rows.map(({ path }) => path)
}
