import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { ensurePackages, root } from './setup/dependencies.mjs'
import { main, say, Trouble } from './setup/say.mjs'

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: '4170' },
    data: { type: 'string', default: join(root, '.data') },
    empty: { type: 'boolean', default: false },
  },
})

/** Installs what is missing, starts database and application, and stops both on Ctrl-C. */
await main(async () => {
  const port = Number(values.port)
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new Trouble(`--port ${values.port} is not a port. Give a number from 1 to 65535.`)
  const { loadDemo, portIsFree, serve } = await import('./setup/serve.mjs')
  if (!(await portIsFree(port)))
    throw new Trouble(
      `Port ${port} is in use. Stop the program that uses it, or start with: npm start -- --port ${port === 65_535 ? 4171 : port + 1}`,
    )
  await ensurePackages()
  const { ensureBuilt } = await import('./setup/build.mjs')
  await ensureBuilt()
  const { migrate, startPostgres } = await import('./setup/postgres.mjs')
  const postgres = process.env.DATABASE_URL
    ? { url: process.env.DATABASE_URL, stop: async () => {} }
    : await startPostgres(values.data)
  let app = null
  let stopping = false
  const stop = async () => {
    if (stopping) return
    stopping = true
    await app?.stop()
    await postgres.stop()
    process.exit(0)
  }
  process.on('SIGINT', stop)
  process.on('SIGTERM', stop)
  try {
    await migrate(postgres.url)
    if (!values.empty) await loadDemo(postgres.url)
    app = await serve({ databaseUrl: postgres.url, port, quiet: false, env: { LOG_LEVEL: 'warn' } })
  } catch (error) {
    await postgres.stop()
    throw error
  }
  say(`Folvet is ready at ${app.address}`)
  await app.ended
  if (!stopping) {
    await postgres.stop()
    throw new Trouble('The application ended unexpectedly. What it said stands above.')
  }
})
