import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { Agent, request } from 'node:http'
import { join } from 'node:path'
import { generateKeyBetween } from 'fractional-indexing'
import { v7 as uuid } from 'uuid'
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
    const ours: number[] = []
    const theirs: number[] = []
    try {
      for (let round = 0; round < ROUNDS; round++) {
        ours.push(await writeChanges(app.address))
        const { output } = await pgbench(['-N', '-c', String(WRITERS), '-T', String(SECONDS)])
        theirs.push(Number(/tps = ([\d.]+)/.exec(output)?.[1]))
      }
    } finally {
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

/** Eight writers who each add topics to one collection, one change a request. */
async function writeChanges(address: string): Promise<number> {
  const begun = await fetch(`${address}/api/guests`, { method: 'POST' })
  const headers = { cookie: begun.headers.get('set-cookie')!.split(';')[0]!, 'Content-Type': 'application/json' }
  const { collection } = (await begun.json()) as { collection: string }
  const base = `${address}/api/collections/${collection}`
  const text = `# Root\n\n${Array.from({ length: WRITERS }, (_, i) => `- Branch ${i}`).join('\n')}`
  const body = JSON.stringify({ pages: [{ path: 'a.md', text }] })
  const imported = await fetch(`${base}/commands/import`, { method: 'POST', headers, body })
  const map = MapId.parse(((await imported.json()) as { report: { maps: string[] } }).report.maps[0])
  const { records } = (await (await fetch(`${base}/maps/${map}`, { headers })).json()) as MapSnapshot
  const branches = (records.topic ?? []).filter((topic) => topic.text.startsWith('Branch'))
  let committed = 0
  const end = Date.now() + SECONDS * 1_000
  const writer = async (parent: TopicId) => {
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
      const answer = await post(`${base}/changes`, headers, JSON.stringify({ changes: [change] }))
      const { results } = JSON.parse(answer) as { results?: { ok: boolean }[] }
      if (!results?.[0]?.ok) throw new Error(`A change was refused: ${answer.slice(0, 300)}`)
      committed++
    }
  }
  const start = Date.now()
  await Promise.all(branches.map((branch) => writer(branch.id)))
  return (committed * 1_000) / (Date.now() - start)
}

const agent = new Agent({ keepAlive: true })

/** A request that costs this process little, so that it measures the server and not itself; resolves with the body. */
const post = (url: string, headers: Record<string, string>, body: string): Promise<string> =>
  new Promise((resolve, reject) => {
    const length = { 'Content-Length': String(Buffer.byteLength(body)) }
    const call = request(url, { method: 'POST', agent, headers: { ...headers, ...length } }, (response) => {
      let answer = ''
      response.setEncoding('utf8')
      response.on('data', (piece: string) => {
        answer += piece
      })
      response.on('end', () => resolve(answer))
    })
    call.on('error', reject)
    call.end(body)
  })
