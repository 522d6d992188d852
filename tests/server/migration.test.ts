import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { migrate, temporaryPostgres } from '../../scripts/setup/postgres.mjs'
import type { Edit } from '../../src/core/changes/edit'
import { prepareChange } from '../../src/core/changes/prepare'
import { undoChange } from '../../src/core/changes/undo'
import { ChangeId } from '../../src/core/records/ids'
import { kinds, RECORD_KINDS } from '../../src/core/records/kinds'
import { Records } from '../../src/core/records/records'
import { loadCollection } from '../../src/server/records/tables'

/**
 * A database of the fourth migration: the demo as it was then, with an enclosure, links to it, to a map and to a topic, a
 * loose topic, one placed by hand, one taken off its parent, and a note.
 */
const DUMP = join(import.meta.dirname, 'fixtures/version-4.sql.gz')

let postgres: Awaited<ReturnType<typeof temporaryPostgres>>
let pool: pg.Pool
let records: Records
let before: { topics: number; links: number; files: number; texts: string }

async function counts() {
  const { rows } = await pool.query(
    `SELECT (SELECT count(*)::int FROM topic) AS topics, (SELECT count(*)::int FROM crosslink) AS links,
            (SELECT count(*)::int FROM file) AS files, (SELECT md5(string_agg(text, ',' ORDER BY id)) FROM topic) AS texts`,
  )
  return rows[0] as typeof before
}

beforeAll(async () => {
  postgres = await temporaryPostgres({ empty: true })
  pool = new pg.Pool({ connectionString: postgres.url, max: 4 })
  // At the end the database may be gone before a connection has said goodbye.
  pool.on('error', () => {})
  // A dump changes settings of its connection.
  const loader = new pg.Client({ connectionString: postgres.url })
  await loader.connect()
  await loader.query(gunzipSync(readFileSync(DUMP)).toString())
  await loader.end()
  before = await counts()
  await migrate(postgres.url)
  records = new Records()
  const client = await pool.connect()
  const { rows } = await client.query<{ id: string }>('SELECT id FROM collection')
  await loadCollection(client, records, rows[0]!.id)
  client.release()
}, 120_000)
afterAll(async () => {
  await pool?.end()
  await postgres?.stop()
})

const topicNamed = (text: string) => [...records.all('topic')].find((topic) => topic.text === text)!

describe('a database made by an earlier version', () => {
  test('opens with everything in it, in the form of today', async () => {
    expect(await counts()).toEqual(before)
    for (const kind of RECORD_KINDS)
      for (const record of records.all(kind)) {
        const parsed = kinds[kind].schema.safeParse(record)
        expect([kind, record.id, parsed.error?.issues]).toEqual([kind, record.id, undefined])
      }
    expect([...records.all('topic')].length).toBe(before.topics)
  })

  test('has the places and link ends that it had', () => {
    expect(topicNamed('Ask about the pump').place).toMatchObject({ kind: 'loose', x: 400, y: -300 })
    const kindsOfPlaces = [...records.all('topic')].map(({ place }) => place.kind)
    const count = (kind: string) => kindsOfPlaces.filter((one) => one === kind).length
    expect([count('by hand'), count('loose'), count('root')]).toEqual([1, 2, 8])
    const ends = [...records.all('crosslink')].map(({ to }) => to.kind)
    expect(ends).toContain('enclosure')
    expect(ends).toContain('map')
    expect(ends).toContain('topic')
    for (const { to } of records.all('crosslink')) expect(records.get(to.kind, to.id)).toBeDefined()
  })

  test('tells its history in the form of today, so that it can be taken back', async () => {
    const { rows } = await pool.query<{ id: ChangeId; label: string; edits: Edit[] }>(
      'SELECT id, label, edits FROM change ORDER BY number',
    )
    const before = JSON.stringify(rows.map(({ edits }) => edits))
    for (const word of ['"toTopic"', '"toMap"', '"toEnclosure"']) expect(before).not.toContain(word)
    for (const { id, label, edits } of rows.slice(1).reverse()) {
      const { change } = undoChange(records, { id, label, edits, undoes: null }, ChangeId.parse(crypto.randomUUID()))
      if (!change) continue
      const prepared = prepareChange(records, change.edits, true)
      expect([label, prepared.ok ? null : prepared.problem.message]).toEqual([label, null])
    }
    const kindsOfPlaces = new Set(
      [...records.all('topic')].filter(({ trashed }) => !trashed).map(({ place }) => place.kind),
    )
    expect([...kindsOfPlaces].sort()).toEqual(['arranged', 'root'])
  })
})
