import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import type { NodeApp } from 'astro/app/node'
import { postChanges } from '../commit/receive-changes'
import { personOfSession, tokenFrom } from '../people/sessions'
import { Asked } from './asked'
import { answer, DATABASE_AWAY, log } from './endpoint'
import { isOurHost, networkAddress } from './public-address'
import { json, type Reply, send } from './reply'
import { fromOurPages, secured } from './security'

const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE'])

/** What a request may not be, whatever it asks for; null where nothing speaks against it. */
function refusal(incoming: IncomingMessage): Reply | null {
  if (!METHODS.has(incoming.method ?? '')) return json(405, { error: 'This method is not known here.' })
  if (!isOurHost(incoming.headers.host ?? ''))
    return json(421, {
      error: 'This server is not known under that name. Its address is a setting: FOLVET_ADDRESS.',
    })
  const path = incoming.url ?? ''
  try {
    if (!path.startsWith('/') || decodeURIComponent(path.split('?', 1)[0]!).includes('\u0000')) throw new Error()
  } catch {
    return json(400, { error: 'This is not an address.' })
  }
  // Files of the build have been answered by now: what is left there are routes of the framework that we do not use.
  return path.startsWith('/_') ? json(404, { error: 'There is nothing here.' }) : null
}

/**
 * Answers a request: who asks, whether they may at all, and then the page or endpoint. Changes are the one thing that
 * comes many times a second; they do not go through the framework, with the same code behind them.
 */
async function respond(app: NodeApp, incoming: IncomingMessage): Promise<Reply> {
  const refused = refusal(incoming)
  if (refused) return refused
  const url = new URL(incoming.url!, `http://${incoming.headers.host}`)
  const forwarded = incoming.headers['x-forwarded-for']
  const from = networkAddress(incoming.socket.remoteAddress, forwarded ? String(forwarded) : null)
  const asked = new Asked(incoming, url, from)
  if (!fromOurPages(asked)) return json(403, { error: 'This request comes from another site and was not carried out.' })
  const token = tokenFrom(asked.header('cookie'))
  let person = null
  try {
    person = token ? await personOfSession(token) : null
  } catch (error) {
    // Nobody is signed out by this: whoever asks comes again.
    log.warn({ error }, 'a session could not be looked up')
    return json(503, { error: DATABASE_AWAY }, { 'Retry-After': '1' })
  }
  const collection = asked.method === 'POST' && /^\/api\/collections\/([^/]+)\/changes$/.exec(url.pathname)?.[1]
  if (collection) return answer(postChanges, { asked, params: { collection }, person })
  const locals: App.Locals = { asked, person, reply: null }
  const request = new Request(url, { method: asked.method, headers: plainHeaders(incoming) })
  const response = await app.render(request, { locals })
  if (locals.reply) return locals.reply
  const body = Buffer.from(await response.arrayBuffer())
  return { status: response.status, headers: Object.fromEntries(response.headers), body }
}

function plainHeaders({ headers }: IncomingMessage): Headers {
  const plain = new Headers()
  for (const [name, value] of Object.entries(headers)) if (typeof value === 'string') plain.set(name, value)
  return plain
}

/** The server of the built application. `files` answers what is a file of the build, and calls on for anything else. */
export function serverFor(
  app: NodeApp,
  files: (incoming: IncomingMessage, outgoing: ServerResponse, next: () => void) => void,
): Server {
  const handle = async (incoming: IncomingMessage, outgoing: ServerResponse) => {
    try {
      await send(secured(await respond(app, incoming)), outgoing)
    } catch (error) {
      log.error({ error, method: incoming.method, path: incoming.url }, 'request failed')
      if (outgoing.headersSent) outgoing.destroy()
      else await send(secured(json(500, { error: 'Something went wrong on our side.' })), outgoing)
    }
  }
  const server = createServer((incoming, outgoing) => {
    // Names of other machines reach nothing, files of the build included.
    if (refusesFiles(incoming)) void handle(incoming, outgoing)
    else files(incoming, outgoing, () => void handle(incoming, outgoing))
  })
  // Longer than browsers and proxies keep a connection unused, so that none is closed under a request on its way.
  server.keepAliveTimeout = 75_000
  // A body has limits of its own: bounded silence, and bounded length.
  server.requestTimeout = 3_600_000
  return server
}

const refusesFiles = ({ method, headers, url }: IncomingMessage) =>
  (method !== 'GET' && method !== 'HEAD') || !isOurHost(headers.host ?? '') || url === '/' || url?.startsWith('/api/')
