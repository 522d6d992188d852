import type { MapId } from '../../core/records/ids'
import type { SiteFile } from '../../site/site'
import { type Client, database, transaction } from '../database'

export interface Publication {
  collection: string
  address: string
  /** Up to which change the site shows the collection; 0 where there is no site now. */
  changeNumber: number
  finishedAt: Date | null
  /** The maps in it; null for all that there were. */
  maps: MapId[] | null
}

const COLUMNS = `collection, address, change_number AS "changeNumber", finished_at AS "finishedAt", maps`

export async function publicationOf(collection: string): Promise<Publication | null> {
  const { rows } = await database().query<Publication>(`SELECT ${COLUMNS} FROM publication WHERE collection = $1`, [
    collection,
  ])
  return rows[0] ?? null
}

/** How many changes a collection has had since one. Numbers do not tell: they jump where the trash was emptied. */
export async function countChangesSince(collection: string, number: number): Promise<number> {
  const text = 'SELECT count(*)::int AS count FROM change WHERE collection = $1 AND number > $2'
  const { rows } = await database().query<{ count: number }>(text, [collection, number])
  return rows[0]!.count
}

/** Gives a collection the address at which it will be published, unless it has one. */
export async function keepAddress(collection: string, address: string): Promise<void> {
  await database().query(
    'INSERT INTO publication (collection, address) VALUES ($1, $2) ON CONFLICT (collection) DO NOTHING',
    [collection, address],
  )
}

/** Replaces the files of a site, all at once: readers never see half a site. */
export async function storeSite(
  client: Client,
  collection: string,
  files: readonly SiteFile[],
  changeNumber: number,
  maps: readonly MapId[] | null,
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
    'UPDATE publication SET change_number = $2, finished_at = now(), maps = $3 WHERE collection = $1',
    [collection, changeNumber, maps],
  )
}

/** Takes a site down. Its address stays with the collection, for when it is published again. */
export async function takeDown(collection: string): Promise<void> {
  await transaction(async (client) => {
    await client.query('DELETE FROM publication_page WHERE collection = $1', [collection])
    await client.query('UPDATE publication SET change_number = 0 WHERE collection = $1', [collection])
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
