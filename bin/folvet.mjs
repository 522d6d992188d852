#!/usr/bin/env node
import { join } from 'node:path'
import { ensurePackages, root } from '../scripts/setup/dependencies.mjs'
import { main } from '../scripts/setup/say.mjs'

/** The main jobs without a browser, against the database in DATABASE_URL or the private one in .data. */
await main(async () => {
  await ensurePackages()
  const { register } = await import('tsx/esm/api')
  register()
  const { needsDatabase, runCommandLine } = await import('../src/server/command-line.ts')
  let postgres = null
  if (needsDatabase(process.argv.slice(2)) && !process.env.DATABASE_URL) {
    const { migrate, startPostgres } = await import('../scripts/setup/postgres.mjs')
    postgres = await startPostgres(process.env.FOLVET_DATA ?? join(root, '.data'))
    process.env.DATABASE_URL = postgres.url
    await migrate(postgres.url)
  }
  try {
    process.exitCode = await runCommandLine(process.argv.slice(2))
  } finally {
    if (postgres && !postgres.adopted) await postgres.stop()
  }
})
