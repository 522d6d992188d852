import { createServer } from 'node:http'
import { pathToFileURL } from 'node:url'
import { beginnings } from './beginnings.mjs'
import { answerDav } from './dav.mjs'
import { actOn, page } from './page.mjs'
import { CalendarStore, Refused } from './store.mjs'

/** Most of one request, in bytes. */
const MOST_BODY = 2_000_000

async function bodyOf(request) {
  const pieces = []
  let size = 0
  for await (const piece of request) {
    size += piece.length
    if (size > MOST_BODY) throw new Refused(413, 'This is too much.')
    pieces.push(piece)
  }
  return Buffer.concat(pieces).toString('utf8')
}

const HTML = {
  'Content-Type': 'text/html; charset=utf-8',
  'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'",
}

/**
 * A small calendar server: CalDAV for programs and a page for people, from a folder. `login` (`name:password`) closes it to others; without
 * it whoever reaches it may do everything, so it listens on loopback alone. Only requests to the host under which it was started are
 * answered, and forms only from its own page: no other page in the browser of the person may change anything.
 */
export function calendarServer({ folder, login = null, now = new Date() }) {
  const store = new CalendarStore(folder)
  for (const [calendar, entries] of Object.entries(beginnings(now))) store.begin(calendar, entries)
  return createServer(async (request, response) => {
    const send = ({ status, headers = {}, body = '' }) => {
      response.writeHead(status, { ...headers, 'X-Content-Type-Options': 'nosniff' })
      response.end(request.method === 'HEAD' ? undefined : body)
    }
    try {
      const { method, headers, socket } = request
      const host = `127.0.0.1:${socket.localPort}`
      if (headers.host !== host && headers.host !== `localhost:${socket.localPort}`)
        throw new Refused(403, `This is reached at ${host}.`)
      if (login && headers.authorization !== `Basic ${Buffer.from(login).toString('base64')}`)
        return send({ status: 401, headers: { 'WWW-Authenticate': 'Basic realm="A small calendar"' } })
      const origin = `http://${headers.host}`
      const path = decodeURIComponent(new URL(request.url, origin).pathname)
      const body = await bodyOf(request)
      if (method === 'GET' && path === '/') return send({ status: 200, headers: HTML, body: page(store, origin) })
      if (method === 'POST') {
        if (headers.origin !== origin) throw new Refused(403, 'This was asked for by another page.')
        const said = actOn(store, path.split('/')[2], new URLSearchParams(body))
        return send({ status: 200, headers: HTML, body: page(store, origin, said) })
      }
      send(answerDav(store, { method, path, headers, body }))
    } catch (error) {
      if (!(error instanceof Refused)) console.error(error)
      const status = error instanceof Refused ? error.status : 400
      send({ status, headers: { 'Content-Type': 'text/plain; charset=utf-8' }, body: `${error.message}\n` })
    }
  })
}

/** Started by itself: PORT, FOLDER, and LOGIN where it is to have one. SIGTERM ends it. */
if (import.meta.url === pathToFileURL(process.argv[1]).href) {
  const server = calendarServer({ folder: process.env.FOLDER, login: process.env.LOGIN || null })
  server.listen(Number(process.env.PORT), '127.0.0.1')
  process.on('SIGTERM', () => {
    server.close(() => process.exit(0))
    server.closeAllConnections()
  })
}
