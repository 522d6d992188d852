import { setImmediate as breathe } from 'node:timers/promises'
import pLimit from 'p-limit'
import { wordsForFinding } from '../../core/text/folding'
import { type Client, database, transaction } from '../database'

/** What can be found, by kind: its table, the columns whose words count, and the fields of a record that write these. */
export const SEARCHED = {
  map: { table: 'map', text: 'title', fields: ['title'] },
  topic: { table: 'topic', text: 'text', fields: ['text'] },
  enclosure: { table: 'enclosure', text: "title || ' ' || note", fields: ['title', 'note'] },
  tag: { table: 'tag', text: 'name', fields: ['name'] },
  note: { table: 'note', text: 'text', fields: ['text'] },
  comment: { table: 'comment', text: 'text', fields: ['text'] },
  weblink: { table: 'weblink', text: "title || ' ' || url", fields: ['title', 'url'] },
  file: { table: 'file', text: 'name', fields: ['name'] },
  /** What stands in files: its words are taken out of them by a job, so they are written by themselves below. */
  'file text': { table: 'file', text: 'name', fields: [] },
} as const
export type SearchedKind = keyof typeof SEARCHED
export const SEARCHED_KINDS = Object.keys(SEARCHED) as SearchedKind[]

/** Longer words are found by so many letters; of one text so many different words are kept. */
const [MOST_LETTERS, MOST_WORDS] = [80, 20_000]

/** The different words of a text, as they are kept and looked for. */
export const searchedWords = (text: string): string[] =>
  [...new Set(wordsForFinding(text).map((word) => word.slice(0, MOST_LETTERS).toWellFormed()))].slice(0, MOST_WORDS)

/** Changes that are read at once, and texts that are folded before others have their turn. */
const [CHANGES_AT_ONCE, TEXTS_AT_ONCE, LETTERS_AT_ONCE] = [500, 500, 200_000]

/** So many collections are read at once: each takes a connection. */
const turns = pLimit(2)
const goingOn = new Map<string, Promise<void>>()

/**
 * Brings the index of a collection up to date, so that what was just written is found; one after the other for each collection and
 * process. Costs what was changed since it was last done, and nothing where nothing was: commits pay nothing for it.
 */
export function catchUp(collection: string): Promise<void> {
  let going = goingOn.get(collection)
  if (!going) {
    going = turns(bringUp, collection).finally(() => goingOn.delete(collection))
    goingOn.set(collection, going)
  }
  return going
}

const WHERE_AT = `
  SELECT c.last, s.number FROM collection_counter c LEFT JOIN search_state s ON s.collection = c.collection
  WHERE c.collection = $1`

async function bringUp(collection: string): Promise<void> {
  for (;;) {
    const { rows } = await database().query<{ last: number; number: number | null }>(WHERE_AT, [collection])
    const at = rows[0]
    if (!at || at.number === at.last) return
    if (await transaction((client) => readOn(client, collection, at.last))) return
  }
}

/**
 * Takes in all that there is, or what the next changes wrote, with nobody else at it. `last` is a number up to which all changes are
 * written. Returns whether that is all.
 */
async function readOn(client: Client, collection: string, last: number): Promise<boolean> {
  await holdIndex(client, collection)
  const state = await client.query<{ number: number }>('SELECT number FROM search_state WHERE collection = $1', [
    collection,
  ])
  const number = state.rows[0]?.number ?? null
  const changed = number === null ? null : await nextChanges(client, collection, number)
  for (const kind of SEARCHED_KINDS) {
    const of = kind === 'file text' ? 'file' : kind
    const ids = changed ? (changed.ids.get(of) ?? []) : await allIds(client, collection, of)
    if (kind === 'file text') await indexTexts(client, collection, ids)
    else await index(client, collection, kind, ids)
  }
  const isAll = changed === null || changed.count < CHANGES_AT_ONCE
  if (changed === null) await client.query('ANALYZE search_row, search_word')
  await client.query(KEEP_STATE, [collection, isAll ? Math.max(last, changed?.last ?? 0) : changed.last])
  return isAll
}

const KEEP_STATE = `
  INSERT INTO search_state (collection, number) VALUES ($1, $2)
  ON CONFLICT (collection) DO UPDATE SET number = excluded.number`

const holdIndex = (client: Client, collection: string) =>
  client.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 21))', [collection])

async function allIds(client: Client, collection: string, kind: SearchedKind): Promise<string[]> {
  const { rows } = await client.query<{ id: string }>(`SELECT id FROM ${SEARCHED[kind].table} WHERE collection = $1`, [
    collection,
  ])
  return rows.map(({ id }) => id)
}

/** What was made, or written anew, by the changes after one, and how many they are. */
const NEXT = `
  SELECT number, ARRAY(
    SELECT (e->>'kind') || ' ' || (e->>'id') FROM jsonb_array_elements(edits) e
    WHERE e->>'kind' = ANY($3) AND (jsonb_typeof(e->'before') = 'null' OR e->'after' ?| $4)) AS written
  FROM change WHERE collection = $1 AND number > $2 ORDER BY number LIMIT ${CHANGES_AT_ONCE}`
const FIELDS = [...new Set(SEARCHED_KINDS.flatMap((kind): readonly string[] => SEARCHED[kind].fields))]

async function nextChanges(client: Client, collection: string, number: number) {
  const given = [collection, number, SEARCHED_KINDS, FIELDS]
  const { rows } = await client.query<{ number: number; written: string[] }>(NEXT, given)
  const ids = new Map<string, string[]>()
  for (const written of new Set(rows.flatMap((row) => row.written))) {
    const [kind = '', id = ''] = written.split(' ')
    ids.set(kind, [...(ids.get(kind) ?? []), id])
  }
  return { ids, count: rows.length, last: rows.at(-1)?.number ?? number }
}

const KEEP_ROWS = `
  INSERT INTO search_row (collection, kind, id, words)
  SELECT $1, $2, r.id, array_to_tsvector(r.words) FROM jsonb_to_recordset($3::jsonb) AS r(id uuid, words text[])
  ON CONFLICT (collection, kind, id) DO UPDATE SET words = excluded.words`
const KEEP_WORDS = 'INSERT INTO search_word (collection, word) SELECT $1, unnest($2::text[]) ON CONFLICT DO NOTHING'

/** Writes the words of some records. */
async function index(client: Client, collection: string, kind: SearchedKind, ids: readonly string[]): Promise<void> {
  const { table, text } = SEARCHED[kind]
  for (let from = 0; from < ids.length; from += TEXTS_AT_ONCE) {
    const some = ids.slice(from, from + TEXTS_AT_ONCE)
    const { rows } = await client.query<{ id: string; text: string }>(
      `SELECT id, ${text} AS text FROM ${table} WHERE collection = $1 AND id = ANY($2)`,
      [collection, some],
    )
    for (const part of byLetters(rows)) {
      const words = part.map((row) => ({ id: row.id, words: searchedWords(row.text) }))
      await client.query(KEEP_ROWS, [collection, kind, JSON.stringify(words)])
      await client.query(KEEP_WORDS, [collection, [...new Set(words.flatMap((row) => row.words))].sort()])
      await breathe()
    }
  }
}

const WORDS_OF_TEXTS = `
  WITH word AS MATERIALIZED (
    SELECT f.id, ARRAY(SELECT DISTINCT unnest(tsvector_to_array(x.words)) FROM file_text x WHERE x.sha256 = f.sha256 LIMIT ${MOST_WORDS}) AS words
    FROM file f WHERE f.collection = $1 AND f.id = ANY($2)
  ), row AS (
    INSERT INTO search_row (collection, kind, id, words)
    SELECT $1, 'file text', id, array_to_tsvector(words) FROM word WHERE words <> '{}'
    ON CONFLICT (collection, kind, id) DO UPDATE SET words = excluded.words)
  INSERT INTO search_word (collection, word) SELECT DISTINCT $1::uuid, w FROM word, unnest(words) w ORDER BY w ON CONFLICT DO NOTHING`

/** Writes the words that stand in some files. */
async function indexTexts(client: Client, collection: string, ids: readonly string[]): Promise<void> {
  for (let from = 0; from < ids.length; from += FILES_AT_ONCE)
    await client.query(WORDS_OF_TEXTS, [collection, ids.slice(from, from + FILES_AT_ONCE)])
}
const FILES_AT_ONCE = 20

/** Takes the text of a content into the index, wherever there are files with it. */
export async function indexFileTexts(client: Client, sha256: string): Promise<void> {
  const { rows } = await client.query<{ collection: string; ids: string[] }>(
    'SELECT collection, array_agg(id) AS ids FROM file WHERE sha256 = $1 GROUP BY collection ORDER BY collection',
    [sha256],
  )
  for (const { collection, ids } of rows) {
    await holdIndex(client, collection)
    await indexTexts(client, collection, ids)
  }
}

/** Rows in parts that do not take long to fold. */
function* byLetters<Row extends { text: string }>(rows: readonly Row[]): Generator<Row[]> {
  let part: Row[] = []
  let letters = 0
  for (const row of rows) {
    part.push(row)
    letters += row.text.length
    if (letters < LETTERS_AT_ONCE) continue
    yield part
    part = []
    letters = 0
  }
  if (part.length > 0) yield part
}

/** Forgets the index of a collection: whoever searches next begins it anew. For when something was removed for good. */
export async function forgetIndex(client: Client, collection: string): Promise<void> {
  for (const table of ['search_state', 'search_row', 'search_word'])
    await client.query(`DELETE FROM ${table} WHERE collection = $1`, [collection])
}
