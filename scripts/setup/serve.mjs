import { spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { root } from './dependencies.mjs'
import { run } from './run.mjs'
import { Trouble } from './say.mjs'

export function portIsFree(port) {
  return new Promise((resolve) => {
    const probe = createServer()
    probe.on('error', () => resolve(false))
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)))
  })
}

/** The key with which a server keeps passwords for other servers: the one that is set, or that of the folder of its data. */
export function keyOf(data) {
  if (process.env.FOLVET_KEY) return process.env.FOLVET_KEY
  const file = join(data, 'key')
  if (!existsSync(file)) {
    mkdirSync(data, { recursive: true })
    writeFileSync(file, randomBytes(32).toString('base64url'), { mode: 0o600, flag: 'wx' })
  }
  return readFileSync(file, 'utf8').trim()
}

/** Loads the demo collection where it is not there yet. */
export async function loadDemo(databaseUrl, env = {}) {
  const { code, output } = await run(process.execPath, [join(root, 'bin', 'folvet.mjs'), 'demo'], {
    env: { ...process.env, DATABASE_URL: databaseUrl, ...env },
  })
  if (code !== 0) throw new Trouble(`The demo could not be loaded:\n${output.trim()}`)
}

/** Starts the built application and waits until it answers. Returns its address, process and a function that stops it. */
export async function serve({ databaseUrl, port, env = {}, quiet = true }) {
  const child = spawn(process.execPath, [join(root, 'scripts', 'serve.mjs')], {
    env: {
      ...process.env,
      HOST: '127.0.0.1',
      PORT: String(port),
      DATABASE_URL: databaseUrl,
      LOG_LEVEL: quiet ? 'error' : 'info',
      ...env,
    },
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'],
  })
  const address = `http://127.0.0.1:${port}`
  const ended = new Promise((resolve) => child.on('close', resolve))
  for (let attempt = 0; ; attempt++) {
    if (child.exitCode !== null || attempt > 300) {
      child.kill('SIGKILL')
      throw new Trouble('The application did not start. What it said stands above.')
    }
    const answer = await fetch(`${address}/healthz`).catch(() => null)
    if (answer?.ok) break
    await wait(100)
  }
  return {
    address,
    child,
    ended,
    async stop() {
      child.kill('SIGTERM')
      await Promise.race([ended, wait(5_000).then(() => child.kill('SIGKILL'))])
    },
  }
}
