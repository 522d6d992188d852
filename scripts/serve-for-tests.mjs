import { ensureBuilt } from './setup/build.mjs'
import { temporaryPostgres } from './setup/postgres.mjs'
import { main } from './setup/say.mjs'
import { loadDemo, serve } from './setup/serve.mjs'

/** The built application with the demo on a database that is gone afterwards: what the browser tests work against. */
await main(async () => {
  await ensureBuilt()
  const postgres = await temporaryPostgres()
  let app = null
  const stop = async () => {
    await app?.stop()
    await postgres.stop()
    process.exit(0)
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
  await loadDemo(postgres.url)
  app = await serve({ databaseUrl: postgres.url, port: Number(process.env.PORT ?? 4185) })
})
