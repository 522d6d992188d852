import type { TestProject } from 'vitest/node'
import { ensureBuilt } from '../../scripts/setup/build.mjs'
import { freePort, temporaryPostgres } from '../../scripts/setup/postgres.mjs'
import { serve } from '../../scripts/setup/serve.mjs'

declare module 'vitest' {
  export interface ProvidedContext {
    address: string
    databaseUrl: string
  }
}

/** The built application on a real PostgreSQL that is gone afterwards. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  await ensureBuilt()
  const postgres = await temporaryPostgres()
  process.env.DATABASE_URL = postgres.url
  const app = await serve({ databaseUrl: postgres.url, port: await freePort() })
  project.provide('address', app.address)
  project.provide('databaseUrl', postgres.url)
  return async () => {
    await app.stop()
    await postgres.stop()
  }
}
