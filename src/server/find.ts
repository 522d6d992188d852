import pLimit from 'p-limit'
import { DatabaseError } from 'pg'
import { onlyMaps } from '../core/rights/grant'
import { database, snapshot } from './database'
import type { Member } from './http/endpoint'

export interface Found {
  kind: 'topic' | 'map' | 'enclosure'
  id: string
  /** Where it is: the topic itself, or the first one inside an enclosure. */
  topic: string | null
  map: string
  mapTitle: string
  text: string
}

/** What lies behind a topic: a note that it carries, a web link or a file on it. */
export interface FoundBehind {
  kind: 'note' | 'weblink' | 'file'
  id: string
  topic: string
  topicText: string
  map: string
  mapTitle: string
  /** Of a note the words around the first that was looked for, of a file its name, of a web link its name or address. */
  text: string
}

/** Most words that are looked for. */
const MOST_WORDS = 8
/** Where fewer than so many texts contain all words, those follow that nearly do. */
const FEW = 5
/** Which part of its trigrams a word shares with a text that nearly contains it; shorter words must be there as they are. */
const CLOSE = 0.42
const CLOSE_FROM = 4
/** How much of a text is compared letter by letter. */
const READ = 300
/** How long texts that nearly contain the words are looked for, in ms, and how many such questions are answered at once. */
const PATIENCE_MS = 800
const turns = pLimit(2)
const MOST_WAITING = 20

/** PostgreSQL's code for a statement that took too long. */
const QUERY_CANCELED = '57014'

/** Whether a topic, or one above it, lies in the trash. */
const isBelowTrash = (topic: string) => `EXISTS (
          WITH RECURSIVE above(parent, trashed) AS (
            SELECT ${topic}, false
            UNION SELECT a.parent, a.trashed FROM above JOIN topic a ON a.collection = $1 AND a.id = above.parent
          ) SELECT 1 FROM above WHERE trashed)`

/** In what sense texts are looked for: a condition on a text, and what comes first of those that meet it. */
interface Sense {
  meets(text: string): string
  order(text: string): string
}

/**
 * $2 the words as patterns, $3 the words, $5 all of it as it was typed; $6 and $7 patterns of words with two neighbouring letters
 * exchanged, which share few trigrams, each with the number of its word.
 */
const CONTAINING: Sense = {
  meets: (text) =>
    `${text} ILIKE ALL($2) AND $3::text[] IS NOT NULL AND $6::int[] IS NOT NULL AND $7::text[] IS NOT NULL`,
  order: (text) => `coalesce(nullif(position(lower($5) IN lower(${text})), 0), 1000000), length(${text})`,
}
const NEARLY: Sense = {
  meets: (text) => `$5::text IS NOT NULL AND (
    SELECT bool_and(${text} ILIKE pattern OR (length(word) >= ${CLOSE_FROM} AND (word_similarity(word, left(${text}, ${READ})) >= ${CLOSE}
      OR EXISTS (SELECT FROM unnest($6::int[], $7::text[]) AS other(number, pattern)
                 WHERE other.number = asked.number AND ${text} ILIKE other.pattern))))
    FROM unnest($2::text[], $3::text[]) WITH ORDINALITY AS asked(pattern, word, number))`,
  order: (text) =>
    `(SELECT sum(word_similarity(word, left(${text}, ${READ}))) FROM unnest($3::text[]) AS word) DESC, length(${text})`,
}

const query = ({ meets, order }: Sense) => `
  (SELECT 'map' AS kind, id, NULL::uuid AS topic, id AS map, title AS "mapTitle", title AS text FROM map
   WHERE collection = $1 AND NOT trashed AND ${meets('title')} AND ($4::uuid[] IS NULL OR id = ANY($4))
   ORDER BY ${order('title')}, id LIMIT 10)
  UNION ALL
  (SELECT 'enclosure', e.id, t.id, t.map, m.title, e.title
   FROM enclosure e
   CROSS JOIN LATERAL (
     SELECT t.id, t.map FROM unnest(e.topics) WITH ORDINALITY AS inside(id, position)
     JOIN topic t ON t.collection = $1 AND t.id = inside.id
     WHERE NOT t.trashed ORDER BY inside.position LIMIT 1) t
   JOIN map m ON m.collection = $1 AND m.id = t.map
   WHERE e.collection = $1 AND NOT e.trashed AND NOT m.trashed AND ${meets('e.title')}
     AND ($4::uuid[] IS NULL OR t.map = ANY($4))
     AND NOT ${isBelowTrash('t.id')}
   ORDER BY ${order('e.title')}, e.id LIMIT 10)
  UNION ALL
  (SELECT 'topic', t.id, t.id, t.map, m.title, t.text FROM topic t JOIN map m ON m.collection = $1 AND m.id = t.map
   WHERE t.collection = $1 AND NOT t.trashed AND t.place <> 'to place' AND NOT m.trashed AND ${meets('t.text')}
     AND ($4::uuid[] IS NULL OR t.map = ANY($4))
     AND NOT ${isBelowTrash('t.parent')}
   ORDER BY ${order('t.text')}, t.id LIMIT 30)`

/** Of each kind so many, and of a note so many letters from so many before the first word on. */
const MOST_BEHIND = 12
const [EXCERPT, BEFORE] = [240, 60]

const excerptOfNote = `substring(n.text FROM greatest(1, position(lower(($3::text[])[1]) IN lower(n.text)) - ${BEFORE}) FOR ${EXCERPT})`

/** One kind of what topics `t` carry: its id and text, the tables in which it stands with its topic, and the text that is searched. */
const carried = (kind: FoundBehind['kind'], id: string, text: string, tables: string, searched: string) => `
  (SELECT '${kind}' AS kind, ${id} AS id, t.id AS topic, t.text AS "topicText", t.map, m.title AS "mapTitle", ${text} AS text
   FROM ${tables} JOIN map m ON m.collection = $1 AND m.id = t.map
   WHERE t.collection = $1 AND NOT t.trashed AND NOT m.trashed AND ${searched} ILIKE ALL($2)
     AND ($4::uuid[] IS NULL OR t.map = ANY($4)) AND NOT ${isBelowTrash('t.parent')}
   ORDER BY t.map, t.id, ${id} LIMIT ${MOST_BEHIND})`

/** $2 the words as patterns, $3 the words, $4 the maps that are open. */
const BEHIND = [
  carried(
    'file',
    'f.id',
    'f.name',
    `file f JOIN attachment a ON a.collection = $1 AND a.file = f.id AND NOT a.trashed AND f.collection = $1 AND NOT f.trashed
     JOIN topic t ON t.collection = $1 AND t.id = a.topic`,
    'f.name',
  ),
  carried(
    'weblink',
    'w.id',
    "COALESCE(NULLIF(w.title, ''), w.url)",
    'weblink w JOIN topic t ON w.collection = $1 AND NOT w.trashed AND t.collection = $1 AND t.id = w.topic',
    "(w.title || ' ' || w.url)",
  ),
  carried(
    'note',
    'n.id',
    excerptOfNote,
    'note n JOIN topic t ON n.collection = $1 AND NOT n.trashed AND t.collection = $1 AND t.note = n.id',
    'n.text',
  ),
].join(' UNION ALL ')

/**
 * Files, web links and notes that contain all words, by the topics that carry them, of each kind a dozen at most. What is not
 * found in the time that there is for it is left out, and so is what is not open to whoever asks.
 */
export async function findBehind({ collection, reach }: Member, asked: string): Promise<FoundBehind[]> {
  const words = wordsOf(asked)
  if (words.length === 0 || turns.pendingCount >= MOST_WAITING) return []
  return turns(() => withPatience<FoundBehind>(BEHIND, [collection, words.map(patternOf), words, onlyMaps(reach)]))
}

const wordsOf = (asked: string): string[] => asked.split(/\s+/).filter(Boolean).slice(0, MOST_WORDS)

const patternOf = (word: string) => `%${word.replace(/[\\%_]/g, '\\$&')}%`

/** Longer words are not looked for with letters exchanged. */
const LONGEST_EXCHANGED = 24

/** A word with each pair of neighbouring letters exchanged; none for words that must be there as they are. */
function exchanges(word: string): string[] {
  const letters = [...word]
  if (letters.length < CLOSE_FROM || letters.length > LONGEST_EXCHANGED) return []
  return letters
    .slice(1)
    .map((letter, i) => [...letters.slice(0, i), letter, letters[i], ...letters.slice(i + 2)].join(''))
}

/**
 * Maps, enclosures and topics whose text or title contains all words, in any order; where these are few, followed by those
 * that contain words nearly like them. At most 50 of each. What lies in the trash is left out, and so is what is not open to
 * whoever asks. Reads all texts of the collection.
 */
export async function find({ collection, reach }: Member, asked: string): Promise<Found[]> {
  const words = wordsOf(asked)
  if (words.length === 0) return []
  const patterns = words.map(patternOf)
  const swapped = words.flatMap((word, i) =>
    exchanges(word).map((other) => ({ word: i + 1, pattern: patternOf(other) })),
  )
  const exchanged = [swapped.map(({ word }) => word), swapped.map(({ pattern }) => pattern)]
  const given = [collection, patterns, words, onlyMaps(reach), asked, ...exchanged]
  const containing = (await database().query<Found>(query(CONTAINING), given)).rows
  if (containing.length >= FEW || !words.some((word) => word.length >= CLOSE_FROM)) return containing
  const nearly = turns.pendingCount < MOST_WAITING ? await turns(() => withPatience<Found>(query(NEARLY), given)) : []
  const known = new Set(containing.map(({ id }) => id))
  return [...containing, ...nearly.filter(({ id }) => !known.has(id))]
}

/** What a query finds in the time that it has; nothing where that is not enough. */
function withPatience<Row extends Found | FoundBehind>(text: string, given: readonly unknown[]): Promise<Row[]> {
  return snapshot(async (client) => {
    await client.query(`SET LOCAL statement_timeout = ${PATIENCE_MS}`)
    return (await client.query<Row>(text, [...given])).rows
  }).catch((error: unknown) => {
    if (error instanceof DatabaseError && error.code === QUERY_CANCELED) return []
    throw error
  })
}
