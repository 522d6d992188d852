import { type ChildProcess, spawn } from 'node:child_process'
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:http'
import { join } from 'node:path'
import { afterAll, afterEach, beforeAll, describe, expect, test } from 'vitest'
import { freePort } from '../../scripts/setup/postgres.mjs'

const START = join(import.meta.dirname, '../../scripts/start.mjs')
let data = ''
beforeAll(() => {
  data = mkdtempSync('/tmp/folvet-start-')
  chmodSync(data, 0o755)
})
afterAll(() => rmSync(data, { recursive: true, force: true }))

const running = new Set<ChildProcess>()
afterEach(async () => {
  for (const child of running) if (child.exitCode === null && child.signalCode === null) child.kill('SIGINT')
  running.clear()
})

interface Started {
  child: ChildProcess
  said(): string
  /** Resolves with the exit code. */
  ended: Promise<number | null>
}

function start(args: string[], env: Record<string, string> = {}): Started {
  const { DATABASE_URL: _, ...own } = process.env
  // A process group of its own, as a terminal gives it.
  const child = spawn(process.execPath, [START, ...args], { env: { ...own, ...env }, detached: true })
  running.add(child)
  let output = ''
  child.stdout.on('data', (piece) => (output += piece))
  child.stderr.on('data', (piece) => (output += piece))
  return { child, said: () => output, ended: new Promise((resolve) => child.on('exit', resolve)) }
}

async function ready(started: Started, port: number): Promise<string> {
  const address = `http://127.0.0.1:${port}`
  await expect.poll(started.said, { timeout: 60_000 }).toContain(`Folvet is ready at ${address}`)
  return address
}

const isRunning = (pid: number): boolean => {
  try {
    process.kill(pid, 0)
    return true
  } catch {
    return false
  }
}

describe('the start command', () => {
  test('serves, stops everything on Ctrl-C, and finds the data again', async () => {
    const port = await freePort()
    const first = start(['--port', String(port), '--data', data, '--empty'])
    const address = await ready(first, port)
    expect(await (await fetch(`${address}/healthz`)).json()).toMatchObject({ ok: true, database: 'ok' })
    const begun = await fetch(`${address}/api/guests`, { method: 'POST' })
    const cookie = begun.headers.get('set-cookie')!.split(';')[0]!
    const database = Number(readFileSync(join(data, 'postgres/cluster/postmaster.pid'), 'utf8').split('\n')[0])
    expect(isRunning(database)).toBe(true)
    first.child.kill('SIGINT')
    expect(await first.ended).toBe(0)
    expect(isRunning(database)).toBe(false)
    await expect(fetch(`${address}/healthz`)).rejects.toThrow()

    const second = start(['--port', String(port), '--data', data, '--empty'])
    await ready(second, port)
    const collections = (await (await fetch(`${address}/api/collections`, { headers: { cookie } })).json()) as {
      title: string
    }[]
    expect(collections.map(({ title }) => title)).toEqual(['My collection'])
    second.child.kill('SIGINT')
    await second.ended
  }, 120_000)

  test('starts the application again when it ends, and says so', async () => {
    const port = await freePort()
    const started = start(['--port', String(port), '--data', data, '--empty'])
    const address = await ready(started, port)
    const children = readFileSync(`/proc/${started.child.pid}/task/${started.child.pid}/children`, 'utf8')
    const application = children
      .trim()
      .split(' ')
      .map(Number)
      .find((pid) => readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('serve.mjs'))
    process.kill(application!, 'SIGKILL')
    await expect.poll(started.said, { timeout: 20_000 }).toContain('started again in')
    await expect.poll(started.said, { timeout: 30_000 }).toContain(`Folvet is ready again at ${address}`)
    expect((await fetch(`${address}/healthz`)).status).toBe(200)
    started.child.kill('SIGINT')
    expect(await started.ended).toBe(0)
  }, 90_000)

  test('adopts a database that was left over', async () => {
    const port = await freePort()
    const first = start(['--port', String(port), '--data', data, '--empty'])
    await ready(first, port)
    const database = readFileSync(join(data, 'postgres/cluster/postmaster.pid'), 'utf8').split('\n')[0]
    // Cut off with everything in its group; the database has a session of its own.
    process.kill(-first.child.pid!, 'SIGKILL')
    await first.ended
    expect(isRunning(Number(database))).toBe(true)
    const second = start(['--port', String(port), '--data', data, '--empty'])
    await ready(second, port)
    expect(readFileSync(join(data, 'postgres/cluster/postmaster.pid'), 'utf8').split('\n')[0]).toBe(database)
    second.child.kill('SIGINT')
    expect(await second.ended).toBe(0)
  }, 120_000)

  test('tells what to do about a busy port, a wrong one, and a folder that holds no database', async () => {
    const busy = createServer().listen(0, '127.0.0.1')
    await new Promise((resolve) => busy.once('listening', resolve))
    const { port } = busy.address() as { port: number }
    const refused = start(['--port', String(port), '--data', data])
    expect(await refused.ended).toBe(1)
    expect(refused.said()).toBe(
      `Port ${port} is in use. Stop the program that uses it, or start with: npm start -- --port ${port + 1}\n`,
    )
    busy.close()
    const wrong = start(['--port', 'spring', '--data', data])
    expect(await wrong.ended).toBe(1)
    expect(wrong.said()).toBe('--port spring is not a port. Give a number from 1 to 65535.\n')
    const broken = mkdtempSync('/tmp/folvet-broken-')
    chmodSync(broken, 0o755)
    mkdirSync(join(broken, 'postgres/cluster'), { recursive: true })
    const none = start(['--port', String(await freePort()), '--data', broken])
    expect(await none.ended).toBe(1)
    expect(none.said()).toContain('is there but holds no database. Move it away, or start with --data')
    rmSync(broken, { recursive: true })
  }, 60_000)
})
