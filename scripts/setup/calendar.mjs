import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { root } from './dependencies.mjs'
import { Trouble } from './say.mjs'

/**
 * Starts the small calendar that stands in for one elsewhere, and waits until it answers. `env` is what the application is told, so that it
 * offers this calendar and may ask it, though it lies in its own network.
 */
export async function startCalendar({ folder, port }) {
  const child = spawn(process.execPath, [join(root, 'stand-ins', 'calendar', 'small-calendar.mjs')], {
    env: { ...process.env, FOLDER: folder, PORT: String(port) },
    stdio: ['ignore', 'inherit', 'inherit'],
  })
  const ended = new Promise((resolve) => child.on('close', resolve))
  const [host, address] = [`127.0.0.1:${port}`, `http://127.0.0.1:${port}/`]
  for (let attempt = 0; ; attempt++) {
    if (child.exitCode !== null || attempt > 200)
      throw new Trouble('The small calendar did not start. What it said stands above.')
    if ((await fetch(address).catch(() => null))?.ok) break
    await wait(50)
  }
  const named = [process.env.FOLVET_OWN_NETWORK, host].filter(Boolean).join(',')
  return {
    address,
    env: { FOLVET_CALENDAR: address, FOLVET_OWN_NETWORK: named },
    async stop() {
      child.kill('SIGTERM')
      await Promise.race([ended, wait(3_000).then(() => child.kill('SIGKILL'))])
    },
  }
}
