import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { connect, type Socket } from 'node:net'
import { join } from 'node:path'
import { generateKeyBetween } from 'fractional-indexing'
import pg from 'pg'
import { v7 as uuid } from 'uuid'
import { importAndWait } from '../scripts/setup/imports.mjs'
import { freePort, migrate, startPostgres } from '../scripts/setup/postgres.mjs'
import { run } from '../scripts/setup/run.mjs'
import { serve } from '../scripts/setup/serve.mjs'
import { blankTopic } from '../src/core/commands/blank-topic'
import { MapId, TopicId } from '../src/core/records/ids'
import type { MapSnapshot } from '../src/core/records/snapshot'
import { compare, type Measurement, median } from './measure'

const WRITERS = 8
const SECONDS = 6
const ROUNDS = 3

/** Committed changes a second through HTTP with eight writers, against pgbench's on the same server in turn. */
export async function measureChangeRate(): Promise<Measurement> {
  const data = mkdtempSync('/tmp/folvet-bench-')
  chmodSync(data, 0o755)
  const postgres = await startPostgres(data)
  const pgbench = (args: string[]) => run(join(postgres.binaries, 'pgbench'), [...args, postgres.url])
  try {
    await migrate(postgres.url)
    await pgbench(['-i', '-s', '10', '-q'])
    const app = await serve({ databaseUrl: postgres.url, port: await freePort() })
    const database = new pg.Client({ connectionString: postgres.url })
    await database.connect()
    const ours: number[] = []
    const theirs: number[] = []
    try {
      for (let round = 0; round < ROUNDS; round++) {
        ours.push(await writeChanges(app.address, database))
        const { output } = await pgbench(['-N', '-c', String(WRITERS), '-T', String(SECONDS)])
        theirs.push(Number(/tps = ([\d.]+)/.exec(output)?.[1]))
      }
    } finally {
      await database.end()
      await app.stop()
    }
    return compare({
      name: 'change-rate',
      value: median(ours),
      unit: 'changes/s',
      peer: 'pgbench -N -c 8',
      peerValue: median(theirs),
      limit: 1 / 3,
      better: 'higher',
    })
  } finally {
    await postgres.stop()
    rmSync(data, { recursive: true, force: true })
  }
}

interface Writer {
  headers: Record<string, string>
  person: string
  collection: string
}

async function begin(address: string): Promise<Writer> {
  const begun = await fetch(`${address}/api/guests`, { method: 'POST' })
  const headers = { cookie: begun.headers.get('set-cookie')!.split(';')[0]!, 'Content-Type': 'application/json' }
  const { collection } = (await begun.json()) as { collection: string }
  const { id } = (await (await fetch(`${address}/api/me`, { headers })).json()) as { id: string }
  return { headers, person: id, collection }
}

/** Eight people who each add topics to one collection, one change a request. */
async function writeChanges(address: string, database: pg.Client): Promise<number> {
  const people = await Promise.all(Array.from({ length: WRITERS }, () => begin(address)))
  const [{ headers, collection }] = people as [Writer]
  for (const { person } of people.slice(1))
    await database.query(
      `INSERT INTO access_grant (id, person, collection, role) VALUES (gen_random_uuid(), $1, $2, 'editor')`,
      [person, collection],
    )
  const base = `${address}/api/collections/${collection}`
  const text = `# Root\n\n${Array.from({ length: WRITERS }, (_, i) => `- Branch ${i}`).join('\n')}`
  const ask = async (method: string, path: string, body?: object) =>
    (await fetch(base + path, { method, headers, ...(body ? { body: JSON.stringify(body) } : {}) })).json()
  const map = MapId.parse((await importAndWait(ask, [{ path: 'a.md', text }]))[0])
  const { records } = (await (await fetch(`${base}/maps/${map}`, { headers })).json()) as MapSnapshot
  const branches = (records.topic ?? []).filter((topic) => topic.text.startsWith('Branch'))
  let committed = 0
  const end = Date.now() + SECONDS * 1_000
  const writer = async (parent: TopicId, { headers }: Writer) => {
    const connection = new Connection(new URL(address))
    const path = `/api/collections/${collection}/changes`
    for (let rank = generateKeyBetween(null, null); Date.now() < end; rank = generateKeyBetween(rank, null)) {
      const id = TopicId.parse(uuid())
      const place = { kind: 'arranged' as const, map, parent, rank, side: null }
      const after = blankTopic(id, place, 'A topic of the bench')
      const change = {
        id: uuid(),
        label: 'Add a topic',
        undoes: null,
        edits: [{ kind: 'topic', id, before: null, after }],
      }
      const answer = await connection.post(path, headers, JSON.stringify({ changes: [change] }))
      if (!answer.startsWith('{"results":[{"ok":true')) throw new Error(`A change was refused: ${answer.slice(0, 300)}`)
      committed++
    }
    connection.close()
  }
  const start = Date.now()
  await Promise.all(branches.map((branch, i) => writer(branch.id, people[i]!)))
  return (committed * 1_000) / (Date.now() - start)
}

/**
 * A connection that stays open and costs this process little, so that it measures the server and not itself: requests
 * are written as they travel, and of an answer only its length and its body are read.
 */
class Connection {
  private waiting: { resolve(body: string): void; reject(error: Error): void } | null = null
  private received = ''
  private readonly socket: Socket

  constructor(private readonly address: URL) {
    this.socket = connect(Number(address.port), address.hostname)
    this.socket.setNoDelay(true)
    this.socket.setEncoding('latin1')
    this.socket.on('data', (piece: string) => this.take(piece))
    this.socket.on('error', (error) => this.waiting?.reject(error))
  }

  /** Posts a body in ASCII; resolves with that of the answer. */
  post(path: string, headers: Record<string, string>, body: string): Promise<string> {
    const lines = Object.entries({ ...headers, Host: this.address.host, 'Content-Length': body.length })
    const head = `POST ${path} HTTP/1.1\r\n${lines.map(([name, value]) => `${name}: ${value}\r\n`).join('')}\r\n`
    return new Promise((resolve, reject) => {
      this.waiting = { resolve, reject }
      this.socket.write(head + body)
    })
  }

  close(): void {
    this.socket.destroy()
  }

  private take(piece: string): void {
    this.received += piece
    const end = this.received.indexOf('\r\n\r\n')
    const length = end < 0 ? null : /^content-length: (\d+)/im.exec(this.received.slice(0, end))?.[1]
    if (length === null || length === undefined || this.received.length < end + 4 + Number(length)) return
    const body = this.received.slice(end + 4)
    this.received = ''
    this.waiting?.resolve(body)
  }
}
