import { type IncomingMessage, request as requestPlain } from 'node:http'
import { request as requestSecure } from 'node:https'
import { lookupFor, OwnNetwork } from './outside'

/** How long one request may take, how often it may lead on, and how much of an answer is read, in bytes. */
const [MOST_MS, MOST_HOPS, MOST_BODY] = [20_000, 4, 20_000_000]

/** What cannot be fetched, with a sentence that a person understands. */
export class NotFetched extends Error {}

/** Statuses that have no body (RFC 9110); Response takes none with them. */
const BODYLESS = new Set([101, 204, 205, 304])

/**
 * As `fetch`, for addresses that people give: nothing in the server's own network is asked (see `lookupFor`), neither at once nor where an
 * address leads on to; time and size are bounded, and a name and password do not go to another host. Throws OwnNetwork or NotFetched.
 */
export async function outsideFetch(
  address: string | URL | Request,
  init: RequestInit = {},
  named?: ReadonlySet<string>,
): Promise<Response> {
  const signal = AbortSignal.timeout(MOST_MS)
  let url = new URL(address instanceof Request ? address.url : address)
  const headers = new Headers(init.headers)
  headers.set('User-Agent', 'Folvet')
  headers.set('Accept-Encoding', 'identity')
  for (let hop = 0; hop <= MOST_HOPS; hop++) {
    if (!/^https?:$/.test(url.protocol)) throw new NotFetched('It leads on to what is no web address.')
    const response = await ask(url, { ...init, headers }, signal, named)
    const location = response.headers.get('location')
    if (response.status < 301 || response.status > 308 || !location || init.redirect === 'manual') return response
    const next = new URL(location, url)
    if (next.host !== url.host || (url.protocol === 'https:' && next.protocol !== 'https:'))
      headers.delete('authorization')
    url = next
  }
  throw new NotFetched('It leads on and on.')
}

async function ask(
  url: URL,
  { method = 'GET', headers, body }: RequestInit,
  signal: AbortSignal,
  named: ReadonlySet<string> | undefined,
): Promise<Response> {
  const sent = typeof body === 'string' ? body : ''
  const lookup = lookupFor(url, named)
  const request = url.protocol === 'https:' ? requestSecure : requestPlain
  const all = { ...Object.fromEntries(new Headers(headers)), 'Content-Length': String(Buffer.byteLength(sent)) }
  try {
    const incoming = await new Promise<IncomingMessage>((resolve, reject) => {
      const asked = request(url, { method, headers: all, signal, lookup, agent: false }, resolve)
      asked.on('error', reject).end(sent)
    })
    const status = incoming.statusCode ?? 0
    const bytes = await bodyOf(incoming)
    const told = Object.entries(incoming.headers).flatMap(([name, value]) =>
      value === undefined ? [] : [[name, String(value)] as [string, string]],
    )
    const answered = new Response(BODYLESS.has(status) ? null : bytes, { status, headers: told })
    // Where it is reached, for what it names by a path alone.
    Object.defineProperty(answered, 'url', { value: url.href })
    return answered
  } catch (error) {
    if (error instanceof NotFetched || error instanceof OwnNetwork) throw error
    throw new NotFetched(signal.aborted ? 'Nobody answered in time.' : 'Nobody answers there.')
  }
}

async function bodyOf(incoming: IncomingMessage): Promise<Uint8Array<ArrayBuffer>> {
  const pieces: Buffer[] = []
  let size = 0
  for await (const piece of incoming) {
    size += (piece as Buffer).length
    if (size > MOST_BODY) {
      incoming.destroy()
      throw new NotFetched('What is there is larger than what can be read.')
    }
    pieces.push(piece as Buffer)
  }
  return new Uint8Array(Buffer.concat(pieces))
}
