import pLimit from 'p-limit'
import { DatabaseError } from 'pg'
import { onlyMaps } from '../../core/rights/grant'
import { isNearly } from '../../core/text/nearly'
import { EXCERPT_WINDOW, excerpt, noteExcerpt } from '../../core/text/note-beginning'
import { type Client, prepared, snapshot } from '../database'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import { GATHERING, isBelowTrash, meets } from './conditions'
import { catchUp, SEARCHED, type SearchedKind, searchedWords } from './search-index'

/** What is asked for: words, in which kinds, and in which map, with which tag and conditions alone. */
export interface Sought {
  words: string
  kinds: readonly SearchedKind[]
  map: string | null
  tag: string | null
  /** What is asked of the topic that carries it, as `conditionsOf` tells it. */
  conditions: string | null
  /** Of each kind at most so many. */
  most: number
}

/** Something that was found, with where it stands. */
export interface FoundRow {
  kind: SearchedKind
  id: string
  /** The topic at which it stands, or that carries it; null for maps and tags. */
  topic: string | null
  topicText: string | null
  map: string | null
  mapTitle: string | null
  /** Of a long text the words around the first that was found; else its name. */
  text: string
  /** Of what stands in a file the page on which it was found, counted from 1, and the name of the file. */
  page: number | null
  file: string | null
}

export interface Searched {
  rows: FoundRow[]
  /** The words by which it was found, also where others were typed. */
  words: string[]
  /** Whether the index is still being made: then there may be more. */
  isPartial: boolean
}

/** Most words that are looked for. */
const MOST_ASKED = 8
/** Where fewer than so many were found, words that are nearly those that were typed count too. */
const FEW = 5
/** Of what is found in the index so many are looked at, more where only some of it is wanted; of so many whether they lie in the trash. */
const [CANDIDATES, CANDIDATES_OF_SOME, ORDERED] = [150, 5_000, 90]
/** Words that count for one that was typed: those that contain it, and those that are nearly it. */
const [MOST_CONTAINING, MOST_NEARLY] = [40, 6]
/** How long a search waits for the index, in ms. */
const PATIENCE_MS = 1_500

/**
 * Finds what contains all words, each as the beginning of a word, in any order; where that is little, also where they stand within
 * words or are mistyped. What lies in the trash is left out, and so is what is not open to whoever asks.
 */
export async function search({ collection, reach }: Member, asked: Sought): Promise<Searched> {
  const words = searchedWords(asked.words).slice(0, MOST_ASKED)
  if (words.length === 0) return { rows: await gatheredRows({ collection, reach }, asked), words, isPartial: false }
  const isPartial = !(await caughtUp(collection))
  if (turns.pendingCount >= MOST_WAITING)
    throw new Failure(503, 'Too many are searching just now. Please try again in a moment.')
  return turns(() => lookUp({ collection, reach }, asked, words, isPartial))
}

/** How many searches are answered at once, how many wait, and how long one may take, in ms. */
const turns = pLimit(4)
const MOST_WAITING = 60
const MOST_MS = 2_000

/** PostgreSQL's code for a statement that took too long. */
const QUERY_CANCELED = '57014'

function lookUp(
  { collection, reach }: Pick<Member, 'collection' | 'reach'>,
  asked: Sought,
  words: string[],
  isPartial: boolean,
): Promise<Searched> {
  return snapshot(async (client) => {
    await client.query(`SET LOCAL statement_timeout = ${MOST_MS}`)
    // Plans are small: to compile one takes longer than to follow it. And few rows of the index are ever wanted.
    await client.query('SET LOCAL jit = off; SET LOCAL enable_seqscan = off')
    const find = (meant: readonly Meant[]) => rowsFor(client, collection, onlyMaps(reach), asked, words, meant)
    const typed = words.map((word): Meant => ({ begins: word, others: [] }))
    const rows = (await find(typed)).map((row) => withExcerpt(row, words))
    if (rows.length >= FEW) return { rows, words, isPartial }
    const meant = await meantBy(client, collection, words)
    if (meant.every(({ others }) => others.length === 0)) return { rows, words, isPartial }
    const known = new Set(rows.map(({ kind, id }) => `${kind} ${id}`))
    const all = meant.flatMap(({ begins, others }) => [begins, ...others])
    const more = (await find(meant))
      .filter(({ kind, id }) => !known.has(`${kind} ${id}`))
      .map((row) => withExcerpt(row, all))
    // Words that nothing shown has are nobody's business: they may stand on maps that are not open to whoever asks.
    const shown = new Set([...rows, ...more].flatMap(({ text }) => searchedWords(text)))
    const others = meant.flatMap((each) => each.others.filter((word) => shown.has(word)))
    return { rows: [...rows, ...more], words: [...words, ...others], isPartial }
  }).catch((error: unknown) => {
    if (error instanceof DatabaseError && error.code === QUERY_CANCELED) return { rows: [], words, isPartial: true }
    throw error
  })
}

export async function caughtUp(collection: string): Promise<boolean> {
  let timer: NodeJS.Timeout | undefined
  const late = new Promise<false>((resolve) => {
    timer = setTimeout(() => resolve(false), PATIENCE_MS)
  })
  try {
    return await Promise.race([catchUp(collection).then(() => true), late])
  } finally {
    clearTimeout(timer)
  }
}

/** Topics that have what is asked for besides words. */
async function gatheredRows(
  { collection, reach }: Pick<Member, 'collection' | 'reach'>,
  asked: Sought,
): Promise<FoundRow[]> {
  const { tag, map, conditions } = asked
  if (!tag && !map && !conditions) return []
  const given = [collection, tag, onlyMaps(reach), map, conditions, null, MOST_GATHERED]
  return (await snapshot((client) => prepared<FoundRow>(client, GATHERED_ROWS, given))).rows
}

export interface CountedTag {
  id: string
  name: string
  tone: number | null
  /** That carry it, as far as they are open to whoever asks. */
  topics: number
}

/** All tags of a collection, in no order; to who is limited to some maps, those that are in use there. */
export async function countTags({ collection, reach }: Member): Promise<CountedTag[]> {
  const given = [collection, onlyMaps(reach)]
  return (await snapshot((client) => prepared<CountedTag>(client, TAG_COUNTS, given))).rows
}

const TAG_COUNTS = `
  SELECT g.id, g.name, g.tone, COALESCE(counted.topics, 0) AS topics
  FROM tag g LEFT JOIN (
    SELECT tag, count(*)::int AS topics
    FROM topic t CROSS JOIN LATERAL unnest(t.tags) AS tag
    JOIN map m ON m.collection = $1 AND m.id = t.map AND NOT m.trashed
    WHERE t.collection = $1 AND NOT t.trashed AND ($2::uuid[] IS NULL OR t.map = ANY($2)) GROUP BY tag) counted ON counted.tag = g.id
  WHERE g.collection = $1 AND NOT g.trashed AND ($2::uuid[] IS NULL OR counted.topics > 0)`

/** The texts of the topics above some, the root first; of those that are far down the last few. */
export async function waysTo({ collection }: Member, topics: readonly string[]): Promise<Map<string, string[]>> {
  const { rows } = await snapshot((client) =>
    client.query<{ topic: string; way: string[] }>(WAYS, [collection, topics]),
  )
  return new Map(rows.map(({ topic, way }) => [topic, way]))
}

const MOST_ABOVE = 5
const WAYS = `
  WITH RECURSIVE above(topic, parent, text, depth) AS (
    SELECT t.id, t.parent, NULL::text, 0 FROM topic t WHERE t.collection = $1 AND t.id = ANY($2)
    UNION ALL
    SELECT above.topic, a.parent, a.text, above.depth + 1
    FROM above JOIN topic a ON a.collection = $1 AND a.id = above.parent WHERE above.depth < ${MOST_ABOVE}
  ) SELECT topic, array_agg(text ORDER BY depth DESC) AS way FROM above WHERE depth > 0 GROUP BY topic`

// ---- Words --------------------------------------------------------------------------------------------------------

/** A word that was typed: words that begin with it count, and these others. */
interface Meant {
  begins: string
  others: readonly string[]
}

/** From so many letters on a word can be mistyped; longer ones are not looked for with letters exchanged. */
const [NEARLY_FROM, LONGEST_EXCHANGED] = [4, 24]

const OTHERS = `
  SELECT asked.number::int, other.word, other.is_near AS "isNear"
  FROM unnest($2::text[], $3::text[]) WITH ORDINALITY AS asked(word, pattern, number)
  CROSS JOIN LATERAL (
    (SELECT word, false AS is_near FROM search_word WHERE collection = $1 AND length(asked.word) > 1 AND word LIKE asked.pattern
     ORDER BY length(word), word LIMIT ${MOST_CONTAINING})
    UNION ALL
    (SELECT word, true FROM search_word WHERE collection = $1 AND length(asked.word) >= ${NEARLY_FROM} AND word % asked.word
     ORDER BY word <-> asked.word, word LIMIT ${MOST_CONTAINING})) other
  UNION ALL
  SELECT number, word, true FROM unnest($4::int[], $5::text[]) AS exchanged(number, other)
  JOIN search_word ON collection = $1 AND word = other`

/** Words of the collection that each typed word may stand for. */
async function meantBy(client: Client, collection: string, words: readonly string[]): Promise<Meant[]> {
  const exchanged = words.flatMap((word, i) => exchanges(word).map((other) => ({ number: i + 1, other })))
  await client.query('SET LOCAL pg_trgm.similarity_threshold = 0.2')
  const { rows } = await client.query<{ number: number; word: string; isNear: boolean }>(OTHERS, [
    collection,
    words,
    words.map((word) => `%${word.replace(/[\\%_]/g, '\\$&')}%`),
    exchanged.map(({ number }) => number),
    exchanged.map(({ other }) => other),
  ])
  return words.map((word, i) => {
    const others = rows.filter(({ number }) => number === i + 1)
    const within = others.filter(({ isNear }) => !isNear).map((row) => row.word)
    // The beginning of a longer word can be mistyped too.
    const near = others.filter(
      (row) => row.isNear && (isNearly(row.word, word) || isNearly(row.word.slice(0, word.length), word)),
    )
    const nearly = within.length > 0 ? [] : near.slice(0, MOST_NEARLY).map((row) => row.word)
    return { begins: word, others: [...new Set([...within, ...nearly])].filter((other) => !other.startsWith(word)) }
  })
}

/** A word with each pair of neighbouring letters exchanged: these share few trigrams. */
function exchanges(word: string): string[] {
  const letters = [...word]
  if (letters.length < NEARLY_FROM || letters.length > LONGEST_EXCHANGED) return []
  return letters
    .slice(1)
    .map((letter, i) => [...letters.slice(0, i), letter, letters[i], ...letters.slice(i + 2)].join(''))
}

export const quoted = (word: string) => `'${word.replace(/['\\]/g, '$&$&')}'`

/** What the words mean as PostgreSQL asks an index for it: https://www.postgresql.org/docs/15/datatype-textsearch.html. */
const queryOf = (meant: readonly Meant[]): string =>
  meant.map(({ begins, others }) => `(${[`${quoted(begins)}:*`, ...others.map(quoted)].join(' | ')})`).join(' & ')

// ---- Rows ---------------------------------------------------------------------------------------------------------

/** Of a long text so many letters are told, from so many before the first word on. */
const [EXCERPT, BEFORE] = [240, 60]
const LONG: ReadonlySet<string> = new Set<SearchedKind>(['comment', 'file text'])

/** A row with what a person reads of a long text around the words. */
function withExcerpt(row: FoundRow, words: readonly string[]): FoundRow {
  if (row.kind === 'note') return { ...row, text: noteExcerpt(row.text, words, BEFORE, EXCERPT) }
  return LONG.has(row.kind) ? { ...row, text: excerpt(row.text.replace(/\s+/g, ' '), words, BEFORE, EXCERPT) } : row
}

/** How a kind is told: what `r` of its table says, its text in full, and how the topic `t` that carries it is reached, if any does. */
interface Telling {
  text: string
  searched: string
  topics: string | null
  /** What is told of a text that can be long. */
  excerpt?: string
  /** What else is needed of `r` to find the page, and how it is found; `found` is the row without it. */
  more?: string
  page?: string
}

const around = (text: string) =>
  `substring(${text} FROM greatest(1, coalesce(nullif(position($7 IN lower(${text})), 0), position(split_part($7, ' ', 1) IN lower(${text}))) - ${EXCERPT_WINDOW.before}) FOR ${EXCERPT_WINDOW.most})`

/** Looked up one by one: the planner does not know how few there are. */
const topicWhere = (condition: string) => `
  CROSS JOIN LATERAL (
    SELECT id, text, map, parent, tags, place, task, dates, work FROM topic WHERE collection = $1 AND ${condition} AND NOT trashed OFFSET 0) t`
const TELLING: Record<SearchedKind, Telling> = {
  map: { text: 'r.title', searched: 'r.title', topics: null },
  topic: { text: 'r.text', searched: 'r.text', topics: topicWhere('id = r.id') },
  enclosure: {
    text: 'r.title',
    searched: 'r.title',
    topics: `CROSS JOIN LATERAL (
      SELECT t.* FROM unnest(r.topics) WITH ORDINALITY AS inside(id, position)
      JOIN topic t ON t.collection = $1 AND t.id = inside.id
      WHERE NOT t.trashed ORDER BY inside.position LIMIT 1) t`,
  },
  tag: { text: 'r.name', searched: 'r.name', topics: null },
  file: {
    text: 'r.name',
    searched: 'r.name',
    topics: `JOIN attachment a ON a.collection = $1 AND a.file = r.id AND NOT a.trashed ${topicWhere('id = a.topic')}`,
  },
  'file text': {
    text: 'r.name',
    searched: 'r.name',
    topics: `JOIN attachment a ON a.collection = $1 AND a.file = r.id AND NOT a.trashed ${topicWhere('id = a.topic')}`,
    more: 'r.sha256',
    page: `CROSS JOIN LATERAL (
      SELECT page, text AS page_text FROM file_text WHERE sha256 = found.more
      ORDER BY words @@ $2::tsquery DESC, words @@ replace($2::tsquery::text, ' & ', ' | ')::tsquery DESC, page LIMIT 1) p`,
    excerpt: around('page_text'),
  },
  comment: {
    text: 'r.text',
    searched: 'r.text',
    topics: topicWhere('id = r.topic'),
    excerpt: around('text'),
  },
  weblink: {
    text: "COALESCE(NULLIF(r.title, ''), r.url)",
    searched: "(r.title || ' ' || r.url)",
    topics: topicWhere('id = r.topic'),
  },
  note: {
    text: 'r.text',
    searched: 'r.text',
    topics: topicWhere('note = r.id'),
    excerpt: around('text'),
  },
}

/**
 * $2 what is looked for, $3 the same where words must be whole, $4 the maps that are open, $5 the one map and $6 the tag that are asked
 * for, $7 what was typed, $8 how many of each kind, $9 how many are looked at of those with whole words and of the others,
 * $10 what is asked of topics.
 */
function queryFor(kind: SearchedKind): string {
  const { text, searched, topics, excerpt = 'text', more = 'NULL', page = '' } = TELLING[kind]
  const hit = `
    WITH hit AS MATERIALIZED (
      (SELECT id, true AS is_whole FROM search_row
       WHERE collection = $1 AND kind = '${kind}' AND words @@ $3::tsquery LIMIT $9)
      UNION ALL
      (SELECT id, false FROM search_row
       WHERE collection = $1 AND kind = '${kind}' AND words @@ $2::tsquery AND NOT words @@ $3::tsquery LIMIT $9))`
  const order = `hit.is_whole DESC, coalesce(nullif(position($7 IN lower(left(${searched}, 2000))), 0), 1000000), length(${searched})`
  if (!topics)
    return `${hit}
      SELECT '${kind}' AS kind, r.id, NULL AS topic, NULL AS "topicText", ${kind === 'map' ? 'r.id' : 'NULL'} AS map,
             ${kind === 'map' ? 'r.title' : 'NULL'} AS "mapTitle", ${text} AS text,
             NULL::int AS page, NULL AS file
      FROM hit CROSS JOIN LATERAL (SELECT * FROM ${SEARCHED[kind].table} WHERE collection = $1 AND id = hit.id AND NOT trashed LIMIT 1) r
      WHERE ${kind === 'map' ? '($4::uuid[] IS NULL OR r.id = ANY($4)) AND ($5::uuid IS NULL OR r.id = $5)' : '$4::uuid[] IS NULL AND $5::uuid IS NULL'}
        AND $6::uuid IS NULL AND $10::jsonb IS NULL
      ORDER BY ${order}, r.id LIMIT $8`
  const isPlaced = kind === 'topic' ? `AND t.place <> 'to place'` : ''
  const told = (columns: string) => `kind, id, topic, "topicText", map, "mapTitle", ${excerpt} AS text, ${columns}`
  const found = `(
      SELECT '${kind}' AS kind, r.id, t.id AS topic, t.text AS "topicText", t.map, m.title AS "mapTitle", ${text} AS text, ${more} AS more, t.parent,
             row_number() OVER (ORDER BY ${order}, t.id, r.id) AS number
      FROM hit CROSS JOIN LATERAL (SELECT * FROM ${SEARCHED[kind].table} WHERE collection = $1 AND id = hit.id AND NOT trashed LIMIT 1) r
      ${topics}
      CROSS JOIN LATERAL (SELECT title, trashed FROM map WHERE collection = $1 AND id = t.map LIMIT 1) m
      WHERE NOT m.trashed ${isPlaced}
        AND ($4::uuid[] IS NULL OR t.map = ANY($4)) AND ($5::uuid IS NULL OR t.map = $5) AND ($6::uuid IS NULL OR $6 = ANY(t.tags))
        AND ${meets('$10')}
      ORDER BY number LIMIT ${ORDERED}) found
    WHERE NOT ${isBelowTrash('found.parent')} ORDER BY number LIMIT $8`
  if (!page) return `${hit} SELECT ${told('NULL::int AS page, NULL AS file')} FROM ${found}`
  // The page is looked for in what is told alone.
  return `${hit}, shown AS MATERIALIZED (SELECT * FROM ${found})
    SELECT ${told('page, text AS file')} FROM shown found ${page} ORDER BY number`
}

const MOST_GATHERED = 500
const GATHERED_ROWS = `
  SELECT 'topic' AS kind, t.id, t.id AS topic, t.text AS "topicText", t.map, t.map_title AS "mapTitle", t.text, NULL::int AS page, NULL AS file
  ${GATHERING}`

const QUERIES = Object.fromEntries(
  (Object.keys(TELLING) as SearchedKind[]).map((kind) => [kind, queryFor(kind)]),
) as Record<SearchedKind, string>

async function rowsFor(
  client: Client,
  collection: string,
  only: string[] | null,
  { kinds, map, tag, conditions, most, words: typed }: Sought,
  words: readonly string[],
  meant: readonly Meant[],
): Promise<FoundRow[]> {
  const whole = words.map(quoted).join(' & ')
  const candidates = only || map || tag || conditions ? CANDIDATES_OF_SOME : CANDIDATES
  const given = [
    collection,
    queryOf(meant),
    whole,
    only,
    map,
    tag,
    typed.trim().toLowerCase(),
    most,
    candidates,
    conditions,
  ]
  const found = await Promise.all(kinds.map((kind) => prepared<FoundRow>(client, QUERIES[kind], given)))
  return found.flatMap(({ rows }) => rows)
}
