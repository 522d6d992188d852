import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { parseArgs } from 'node:util'
import { ensurePackages, root } from './setup/dependencies.mjs'
import { main, say, Trouble } from './setup/say.mjs'

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: '4170' },
    data: { type: 'string', default: join(root, '.data') },
    empty: { type: 'boolean', default: false },
    'calendar-port': { type: 'string' },
  },
})

/** Pauses before the application is started again, in ms, and how long it must have run for the first one to count again. */
const [FIRST_PAUSE, LONGEST_PAUSE, STEADY] = [1_000, 60_000, 300_000]

/** Installs what is missing, starts database and application, and stops both on Ctrl-C. */
await main(async () => {
  const port = Number(values.port)
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new Trouble(`--port ${values.port} is not a port. Give a number from 1 to 65535.`)
  const calendarPort = Number(values['calendar-port'] ?? (port === 65_535 ? 4_171 : port + 1))
  if (!Number.isInteger(calendarPort) || calendarPort < 1 || calendarPort > 65_535)
    throw new Trouble(`--calendar-port ${values['calendar-port']} is not a port. Give a number from 1 to 65535.`)
  const { keyOf, loadDemo, portIsFree, serve } = await import('./setup/serve.mjs')
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
  const settings = {
    databaseUrl: postgres.url,
    port,
    quiet: false,
    env: { LOG_LEVEL: 'warn', FOLVET_KEY: keyOf(values.data) },
  }
  let app = null
  let calendar = null
  let stopping = false
  const stop = async () => {
    if (stopping) return
    stopping = true
    await app?.stop()
    await calendar?.stop()
    await postgres.stop()
    process.exit(0)
  }
  process.on('SIGINT', stop)
  process.on('SIGTERM', stop)
  try {
    calendar = await standIn(calendarPort)
    Object.assign(settings.env, calendar?.env)
    await migrate(postgres.url)
    if (!values.empty) await loadDemo(postgres.url, calendar?.env)
    app = await serve(settings)
  } catch (error) {
    await calendar?.stop()
    await postgres.stop()
    throw error
  }
  say(`Folvet is ready at ${app.address}`)
  if (calendar) say(`A small calendar to try it with is at ${calendar.address}`)
  for (let pause = FIRST_PAUSE; ; pause = Math.min(pause * 2, LONGEST_PAUSE)) {
    const since = Date.now()
    await app.ended
    if (stopping) return
    if (Date.now() - since > STEADY) pause = FIRST_PAUSE
    say(`The application ended unexpectedly; it is started again in ${pause / 1_000} s. What it said stands above.`)
    await wait(pause)
    if (stopping) return
    app = await serve(settings)
    say(`Folvet is ready again at ${app.address}`)
  }
})

/** The small calendar that stands in for one elsewhere; null where its port is in use: everything else works without it. */
async function standIn(port) {
  const [{ portIsFree }, { startCalendar }] = await Promise.all([
    import('./setup/serve.mjs'),
    import('./setup/calendar.mjs'),
  ])
  if (await portIsFree(port)) return startCalendar({ folder: join(values.data, 'calendar'), port })
  say(
    `The small calendar is not started: port ${port} is in use. Give it another one with: npm start -- --calendar-port N`,
  )
  return null
}
