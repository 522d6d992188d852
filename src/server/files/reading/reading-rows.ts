import { type Client, database } from '../../database'
import { searchedWords } from '../../search/search-index'
import type { ContentToRead } from './take-text'

/** After so many processes that ended over a content it is given up. */
const MOST_ATTEMPTS = 2

/** Notes that the text of a content is to be taken out of it, once there is a file with it. */
export async function noteToRead(sha256: string): Promise<void> {
  await database().query('INSERT INTO file_reading (sha256) VALUES ($1) ON CONFLICT DO NOTHING', [sha256])
}

/** Jobs for what waits to be read, one a collection where there is none yet. Returns the collections that got one. */
const ASK = `
  INSERT INTO job (id, collection, person, person_name, kind, label, input, state)
  SELECT gen_random_uuid(), waiting.collection, '00000000-0000-0000-0000-000000000000', '', 'read files', 'Read the files', 'null', 'waiting'
  FROM (SELECT DISTINCT f.collection FROM file_reading r JOIN file f ON f.sha256 = r.sha256 WHERE r.state = 'waiting') waiting
  ON CONFLICT DO NOTHING RETURNING collection`

export async function askForReading(): Promise<string[]> {
  const { rows } = await database().query<{ collection: string }>(ASK)
  return rows.map(({ collection }) => collection)
}

const NEXT = `
  UPDATE file_reading SET attempts = attempts + 1, state = CASE WHEN attempts >= ${MOST_ATTEMPTS} THEN 'failed' ELSE state END
  WHERE sha256 = (
    SELECT r.sha256 FROM file_reading r JOIN file f ON f.sha256 = r.sha256
    WHERE f.collection = $1 AND r.state = 'waiting' ORDER BY r.attempts, r.sha256 LIMIT 1)
  RETURNING sha256, state, (
    SELECT json_build_object('sha256', f.sha256, 'size', f.size, 'type', f.type, 'name', f.name)
    FROM file f WHERE f.collection = $1 AND f.sha256 = file_reading.sha256 ORDER BY f.id LIMIT 1) AS content`

/** The next content of a collection that waits to be read; null where there is none. It counts as begun. */
export async function beginReading(collection: string): Promise<ContentToRead | null> {
  for (;;) {
    const { rows } = await database().query<{ state: string; content: ContentToRead }>(NEXT, [collection])
    if (!rows[0]) return null
    if (rows[0].state === 'waiting') return rows[0].content
  }
}

const WAITING = `
  SELECT count(DISTINCT r.sha256)::int AS waiting FROM file_reading r JOIN file f ON f.sha256 = r.sha256
  WHERE f.collection = $1 AND r.state = 'waiting'`

export async function countToRead(collection: string): Promise<number> {
  const { rows } = await database().query<{ waiting: number }>(WAITING, [collection])
  return rows[0]!.waiting
}

const KEEP_PAGES = `
  INSERT INTO file_text (sha256, page, text, words)
  SELECT $1, r.page, r.text, array_to_tsvector(r.words) FROM jsonb_to_recordset($2::jsonb) AS r(page int, text text, words text[])
  ON CONFLICT (sha256, page) DO UPDATE SET text = excluded.text, words = excluded.words`

export async function keepPages(sha256: string, pages: readonly string[]): Promise<void> {
  const rows = pages.flatMap((text, i) => (text === '' ? [] : { page: i + 1, text, words: searchedWords(text) }))
  await database().query(KEEP_PAGES, [sha256, JSON.stringify(rows)])
}

/** Says that a content is done with. */
export const endReading = (client: Client, sha256: string, state: ToldText['state']) =>
  client.query('UPDATE file_reading SET state = $2 WHERE sha256 = $1', [sha256, state])

/** What a person is told of the text of a file. */
export interface ToldText {
  state: 'waiting' | 'read' | 'without text' | 'failed'
  pages: { page: number; text: string }[]
}

export async function textOf(sha256: string): Promise<ToldText> {
  const states = database().query<{ state: ToldText['state'] }>('SELECT state FROM file_reading WHERE sha256 = $1', [
    sha256,
  ])
  const pages = database().query<ToldText['pages'][number]>(
    'SELECT page, text FROM file_text WHERE sha256 = $1 ORDER BY page',
    [sha256],
  )
  return { state: (await states).rows[0]?.state ?? 'waiting', pages: (await pages).rows }
}
