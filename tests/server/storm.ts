import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { generateKeyBetween } from 'fractional-indexing'
import pg from 'pg'
import { v7 as uuid } from 'uuid'
import { importAndWait } from '../../scripts/setup/imports.mjs'
import { freePort, migrate, startPostgres } from '../../scripts/setup/postgres.mjs'
import { serve } from '../../scripts/setup/serve.mjs'
import type { Change, Edit } from '../../src/core/changes/edit'
import { packEdits } from '../../src/core/changes/packed'
import { blankTopic } from '../../src/core/commands/blank-topic'
import { ChangeId, MapId, NoteId, TopicId } from '../../src/core/records/ids'
import type { MapSnapshot } from '../../src/core/records/snapshot'
import type { TopicRecord } from '../../src/core/records/topic'
import { Outbox, type Sent } from '../../src/views/sync/outbox'

const WRITERS = 4

const PAGE = 'Sow the peas early, and water them late in the day.\n\n'.repeat(60)

/** The edits by which a topic gets a page. */
const begunPage = (id: NoteId, topic: TopicRecord): Edit[] => [
  { kind: 'note', id, before: null, after: { id, text: PAGE, joinedInto: null, trashed: false } },
  { kind: 'topic', id: topic.id, before: { note: topic.note }, after: { note: id } },
]

/** What was acknowledged in a storm, what was not, and what the database says of it afterwards. */
interface Outcome {
  acknowledged: number
  /** Whether a page that was written all the while has every line in its place. */
  isPageWhole: boolean
  /** Acknowledged changes that are not there, or have another number. */
  lost: string[]
  /** Changes of which only a part is there. */
  half: string[]
  /** Whether the numbers of all changes follow one another. */
  isGapless: boolean
  /** Changes that were never acknowledged or set aside. */
  stuck: number
  /** The highest number that the reader of the stream heard, who came back by themselves, and the highest there is. */
  heard: number
  last: number
}

/**
 * Several writers and a reader go on while the server is killed, and the database stopped at once, so many times each. The
 * writers are outboxes as in a browser; every change makes two topics.
 */
export async function storm(kills: number): Promise<Outcome> {
  const data = mkdtempSync(join(tmpdir(), 'folvet-storm-'))
  chmodSync(data, 0o755)
  const [databasePort, port] = [await freePort(), await freePort()]
  let postgres = await startPostgres(data, { port: databasePort })
  await migrate(postgres.url)
  const start = () => serve({ databaseUrl: postgres.url, port, env: { LOG_LEVEL: 'silent' } })
  let app = await start()
  const { address } = app
  const begun = await fetch(`${address}/api/guests`, { method: 'POST' })
  const cookie = begun.headers.get('set-cookie')!.split(';')[0]!
  const { collection } = (await begun.json()) as { collection: string }
  const base = `${address}/api/collections/${collection}`
  const post = (path: string, value: unknown) =>
    fetch(base + path, {
      method: 'POST',
      headers: { cookie, 'Content-Type': 'application/json' },
      body: JSON.stringify(value),
      signal: AbortSignal.timeout(5_000),
    })
  const text = `# Root\n\n${Array.from({ length: WRITERS }, (_, i) => `- Branch ${i}`).join('\n')}`
  const ask = async (method: string, path: string, body?: object) =>
    (body ? await post(path, body) : await fetch(base + path, { method, headers: { cookie } })).json()
  const map = MapId.parse((await importAndWait(ask, [{ path: 'a.md', text }]))[0])
  const { records } = (await (await fetch(`${base}/maps/${map}`, { headers: { cookie } })).json()) as MapSnapshot
  const branches = (records.topic ?? []).filter((topic) => topic.text.startsWith('Branch'))

  const acknowledged = new Map<string, number>()
  let isOver = false
  const send = async (changes: readonly Change[], whole: ReadonlySet<string>): Promise<Sent> => {
    const packed = changes.map((each) => (whole.has(each.id) ? each : { ...each, edits: packEdits(each.edits) }))
    const response = await post('/changes', { changes: packed })
    if (!response.ok)
      return response.status >= 500 ? { kind: 'later' } : { kind: 'never', message: await response.text() }
    const { results } = (await response.json()) as { results: Extract<Sent, { kind: 'results' }>['results'] }
    return { kind: 'results', results }
  }
  const dropped: string[] = []
  const outboxes = branches.map(
    () =>
      new Outbox({
        send,
        keep: () => {},
        forget: () => {},
        committed: ({ id, number }) => acknowledged.set(id, number),
        dropped: ({ id }, message) => dropped.push(`${id} ${message}`),
        changed: () => {},
        wait: (ms) => wait(Math.min(ms, 300)),
      }),
  )
  const writers = branches.map(async ({ id: parent }, i) => {
    let rank = generateKeyBetween(null, null)
    while (!isOver) {
      const edits = [0, 1].map(() => {
        const id = TopicId.parse(uuid())
        const topic = blankTopic(id, { kind: 'arranged', map, parent, rank, side: null }, 'A topic in the storm')
        rank = generateKeyBetween(rank, null)
        return { kind: 'topic' as const, id, before: null, after: topic }
      })
      outboxes[i]!.add({ id: ChangeId.parse(uuid()), label: 'Storm', edits, undoes: null })
      await wait(40)
    }
  })
  // One more writes on a page all the while: each pause is a change, of which what differs is sent.
  const scribe = outboxes[0]!
  let page = PAGE
  const noteId = NoteId.parse(uuid())
  scribe.add({ id: ChangeId.parse(uuid()), label: 'Page', edits: begunPage(noteId, branches[0]!), undoes: null })
  writers.push(typeOn())
  async function typeOn(): Promise<void> {
    for (let line = 0; !isOver; line++) {
      const before = { text: page }
      page = line % 2 === 0 ? `${page}Line ${line} of the storm.\n\n` : `Line ${line}.\n\n${page}`
      const edits = [{ kind: 'note' as const, id: noteId, before, after: { text: page } }]
      scribe.add({ id: ChangeId.parse(uuid()), label: 'Write on', edits, undoes: null })
      await wait(50)
    }
  }
  const reader = { heard: 0 }
  const listening = follow(`${base}/stream`, cookie, reader, () => isOver)

  for (let kill = 0; kill < kills; kill++) {
    await wait(300 + Math.random() * 300)
    app.child.kill('SIGKILL')
    await app.ended
    app = await start()
    await wait(300 + Math.random() * 300)
    await postgres.stop('SIGQUIT')
    postgres = await startPostgres(data, { port: databasePort })
  }
  await wait(500)
  isOver = true
  await Promise.all(writers)
  for (const outbox of outboxes) outbox.wake()
  await Promise.race([Promise.all(outboxes.map((outbox) => outbox.run())), wait(60_000)])
  const database = new pg.Client({ connectionString: postgres.url })
  await database.connect()
  try {
    const { rows } = await database.query<{ id: string; number: number; edits: { id: string }[] }>(
      'SELECT id, number::int, edits FROM change WHERE collection = $1 ORDER BY number',
      [collection],
    )
    const { rows: topics } = await database.query<{ id: string }>('SELECT id FROM topic WHERE collection = $1', [
      collection,
    ])
    const { rows: notes } = await database.query<{ id: string; text: string }>(
      'SELECT id, text FROM note WHERE collection = $1',
      [collection],
    )
    const there = new Set([...topics, ...notes].map(({ id }) => id))
    const numbers = new Map(rows.map(({ id, number }) => [id, number]))
    const last = rows.at(-1)!.number
    for (let i = 0; i < 50 && reader.heard < last; i++) await wait(100)
    return {
      acknowledged: acknowledged.size,
      isPageWhole: notes.some(({ id, text }) => id === noteId && text === page),
      lost: [...acknowledged].flatMap(([id, number]) => (numbers.get(id) === number ? [] : [id])),
      half: rows.slice(1).flatMap(({ id, edits }) => (edits.every((edit) => there.has(edit.id)) ? [] : [id])),
      isGapless: rows.every(({ number }, i) => number === i + 1),
      stuck: outboxes.reduce((sum, outbox) => sum + outbox.state.changes, 0) + dropped.length,
      heard: reader.heard,
      last,
    }
  } finally {
    await database.end()
    await app.stop()
    await listening
    await postgres.stop()
    rmSync(data, { recursive: true, force: true })
  }
}

/** Reads the stream as a browser does: from the last number on, again and again, until it is over and the server is gone. */
async function follow(path: string, cookie: string, reader: { heard: number }, isOver: () => boolean): Promise<void> {
  for (let failures = 0; failures < 5; ) {
    try {
      const response = await fetch(`${path}?since=${reader.heard}`, { headers: { cookie } })
      if (!response.ok) throw new Error(String(response.status))
      failures = 0
      const pieces = response.body!.pipeThrough(new TextDecoderStream()).getReader()
      for (let read = await pieces.read(); !read.done; read = await pieces.read())
        for (const [, id] of read.value.matchAll(/^id: (\d+)$/gm)) reader.heard = Math.max(reader.heard, Number(id))
    } catch {
      if (isOver()) failures++
    }
    await wait(200)
    if (isOver()) failures++
  }
}
