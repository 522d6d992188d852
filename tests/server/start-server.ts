import { mkdtempSync, rmSync } from 'node:fs'
import type { TestProject } from 'vitest/node'
import { ensureBuilt } from '../../scripts/setup/build.mjs'
import { startCalendar } from '../../scripts/setup/calendar.mjs'
import { freePort, temporaryPostgres } from '../../scripts/setup/postgres.mjs'
import { serve } from '../../scripts/setup/serve.mjs'

declare module 'vitest' {
  export interface ProvidedContext {
    address: string
    databaseUrl: string
    /** Of the small calendar server that stands in for one elsewhere. */
    calendar: string
  }
}

/** The built application on a real PostgreSQL that is gone afterwards. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  await ensureBuilt()
  const postgres = await temporaryPostgres()
  process.env.DATABASE_URL = postgres.url
  const folder = mkdtempSync('/tmp/folvet-calendar-')
  const calendar = await startCalendar({ folder, port: await freePort() })
  const app = await serve({
    databaseUrl: postgres.url,
    port: await freePort(),
    env: { FOLVET_KEY: 'the key of a server that is tested', ...calendar.env },
  })
  project.provide('calendar', calendar.address)
  project.provide('address', app.address)
  project.provide('databaseUrl', postgres.url)
  return async () => {
    await app.stop()
    await calendar.stop()
    rmSync(folder, { recursive: true, force: true })
    await postgres.stop()
  }
}
