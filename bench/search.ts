import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { v7 as uuid } from 'uuid'
import { migrate, startPostgres } from '../scripts/setup/postgres.mjs'
import { everywhere } from '../src/core/rights/grant'
import { createCollection } from '../src/server/collections'
import { closeDatabase, transaction } from '../src/server/database'
import type { Member } from '../src/server/http/endpoint'
import { createGuest } from '../src/server/people/people'
import { search } from '../src/server/search/search'
import { catchUp, SEARCHED_KINDS } from '../src/server/search/search-index'
import { type Measurement, seededRandom } from './measure'
import { plain } from './served'
import { percentile } from './stage'

const [TOPICS, MAPS, VOCABULARY, QUERIES] = [50_000, 500, 30_000, 400]
const random = seededRandom(100)

const SYLLABLES =
  'ba be bog da del dra en fen gal ho in ka lo mar mo ne or pe ra ri sa so ta ti tor ul va ve wa wel'.split(' ')
const madeWord = () => Array.from({ length: 2 + Math.floor(random() * 3) }, () => pick(SYLLABLES)).join('')
const pick = <Item>(from: readonly Item[]): Item => from[Math.floor(random() * from.length)]!

/** Words of which the most frequent is as frequent as the next two together, and so on (Zipf, 1935). */
function wordSource(): () => string {
  const words = [...new Set(Array.from({ length: VOCABULARY * 2 }, madeWord))].slice(0, VOCABULARY)
  return () => words[Math.floor(words.length ** random()) - 1] ?? words[0]!
}

/** One letter left out, put in, taken for another, or exchanged with its neighbour. */
function mistyped(word: string): string {
  const at = 1 + Math.floor(random() * (word.length - 2))
  const letter = 'abcdefghijklmnopqrstuvwxyz'[Math.floor(random() * 26)]!
  const [before, after] = [word.slice(0, at), word.slice(at + 1)]
  return pick([
    before + after,
    before + letter + word.slice(at),
    before + letter + after,
    before + word[at + 1] + word[at] + word.slice(at + 2),
  ])
}

/** Searches over 50,000 topics that each carry a note of forty words: half for how common words begin, half with a mistake. */
export async function measureSearch(): Promise<Measurement> {
  const data = mkdtempSync('/tmp/folvet-bench-')
  chmodSync(data, 0o755)
  const postgres = await startPostgres(data)
  process.env.DATABASE_URL = postgres.url
  try {
    await migrate(postgres.url)
    const next = wordSource()
    const text = (words: number) => Array.from({ length: words }, next).join(' ')
    const member = await collectionOf(text)
    const begun = performance.now()
    await catchUp(member.collection)
    const made = performance.now() - begun
    const asked = (words: string) =>
      search(member, { words, kinds: SEARCHED_KINDS, map: null, tag: null, conditions: null, most: 30 })
    const times: number[] = []
    let found = 0
    for (let i = -20; i < QUERIES; i++) {
      const word = next()
      const words = i % 2 === 0 ? word.slice(0, 3) : mistyped(word)
      const start = performance.now()
      const { rows } = await asked(words)
      if (i < 0) continue
      times.push(performance.now() - start)
      if (rows.length > 0) found++
    }
    return plain({
      name: 'search-100k',
      value: percentile(times, 0.95),
      unit: 'ms',
      limit: 50,
      note: `p95 of ${QUERIES}; median ${percentile(times, 0.5).toFixed(1)} ms, longest ${Math.max(...times).toFixed(0)} ms; ${found} found something; the index was made in ${(made / 1000).toFixed(1)} s`,
    })
  } finally {
    await closeDatabase()
    await postgres.stop()
    rmSync(data, { recursive: true, force: true })
  }
}

/** A collection of one's own with all its maps, topics and notes. */
async function collectionOf(text: (words: number) => string): Promise<Member> {
  return transaction(async (client) => {
    const person = await createGuest(client)
    const collection = await createCollection(client, person.id, 'Bench')
    const maps = Array.from({ length: MAPS }, () => ({ id: uuid(), root: uuid() }))
    const topics = maps.flatMap(({ id: map, root }) => [
      { id: root, map, parent: null, rank: null, text: text(2), note: null },
      ...Array.from({ length: TOPICS / MAPS }, (_, i) => ({
        id: uuid(),
        map,
        parent: root,
        rank: `a${String.fromCharCode(65 + Math.floor(i / 26))}${String.fromCharCode(97 + (i % 26))}`,
        text: text(3),
        note: uuid(),
      })),
    ])
    const notes = topics.flatMap(({ note }) => (note ? { id: note, text: text(40) } : []))
    const rows = (list: readonly unknown[]) => [collection, JSON.stringify(list)]
    await client.query(
      `INSERT INTO map (collection, id, title) SELECT $1, r.id, r.title FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, title text)`,
      rows(maps.map(({ id }) => ({ id, title: text(2) }))),
    )
    await client.query(
      `INSERT INTO note (collection, id, text) SELECT $1, r.id, r.text FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, text text)`,
      rows(notes),
    )
    await client.query(
      `INSERT INTO topic (collection, id, place, map, parent, rank, text, note)
       SELECT $1, r.id, CASE WHEN r.parent IS NULL THEN 'root' ELSE 'arranged' END, r.map, r.parent, r.rank, r.text, r.note
       FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, map uuid, parent uuid, rank text, text text, note uuid)`,
      rows(topics),
    )
    return { person, role: 'owner', reach: everywhere('owner'), collection }
  })
}
