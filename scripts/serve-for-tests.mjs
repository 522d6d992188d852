import { randomBytes } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureBuilt } from './setup/build.mjs'
import { startCalendar } from './setup/calendar.mjs'
import { freePort, temporaryPostgres } from './setup/postgres.mjs'
import { main } from './setup/say.mjs'
import { loadDemo, serve } from './setup/serve.mjs'

/** The built application with the demo on a database that is gone afterwards: what the browser tests work against. */
await main(async () => {
  await ensureBuilt()
  const postgres = await temporaryPostgres()
  const folder = mkdtempSync(join(tmpdir(), 'folvet-calendar-'))
  const calendar = await startCalendar({ folder, port: await freePort() })
  let app = null
  const stop = async () => {
    await app?.stop()
    await calendar.stop()
    rmSync(folder, { recursive: true, force: true })
    await postgres.stop()
    process.exit(0)
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
  await loadDemo(postgres.url, calendar.env)
  const env = { FOLVET_KEY: randomBytes(32).toString('hex'), ...calendar.env }
  app = await serve({ databaseUrl: postgres.url, port: Number(process.env.PORT ?? 4185), env })
})
