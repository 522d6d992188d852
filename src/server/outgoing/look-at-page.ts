import { request as requestPlain } from 'node:http'
import { request as requestSecure } from 'node:https'
import { lookupFor, OwnNetwork } from './outside'

/** How long one address may take, and how often it may lead on to another one. */
const [MOST_MS, MOST_HOPS] = [10_000, 4]

interface Answered {
  status: number
  /** Where it leads on to. */
  location: string | null
}

/**
 * Looks whether a page is there, without reading it. Null where it is, or where that cannot be told because somebody wants to know first who
 * asks; else what is wrong, in words. It never throws.
 */
export async function lookAtPage(address: string, named?: ReadonlySet<string>): Promise<string | null> {
  const signal = AbortSignal.timeout(MOST_MS)
  try {
    let url = new URL(address)
    let hasMoved = false
    for (let hop = 0; hop <= MOST_HOPS; hop++) {
      const { status, location } = await answered(url, signal, named)
      if (status < 300 || status > 399 || !location) return troubleOf(status) ?? (hasMoved ? movedTo(url) : null)
      hasMoved ||= status === 301 || status === 308
      url = new URL(location, url)
      if (!/^https?:$/.test(url.protocol)) return 'It leads on to what is no web page.'
    }
    return 'It leads on and on.'
  } catch (error) {
    if (error instanceof OwnNetwork) return error.message
    return signal.aborted ? 'Nobody answered in ten seconds.' : 'Nobody answers there.'
  }
}

/** As far as it is told in a line. */
const movedTo = ({ href }: URL): string => `It has moved to ${href.length > 200 ? `${href.slice(0, 199)}…` : href}`

function troubleOf(status: number): string | null {
  if (status === 404 || status === 410) return `The page is not there any more (${status}).`
  return status >= 500 ? `The server there is in trouble (${status}).` : null
}

/** Asks for the head of a page, or where that is not answered for the page, of which nothing is read. */
async function answered(url: URL, signal: AbortSignal, named?: ReadonlySet<string>): Promise<Answered> {
  const first = await ask('HEAD', url, signal, named)
  const isNotAnswered = first.status === 403 || first.status === 404 || first.status === 405 || first.status >= 500
  return isNotAnswered ? ask('GET', url, signal, named) : first
}

function ask(method: 'HEAD' | 'GET', url: URL, signal: AbortSignal, named?: ReadonlySet<string>): Promise<Answered> {
  const request = url.protocol === 'https:' ? requestSecure : requestPlain
  return new Promise((resolve, reject) => {
    const options = { method, signal, lookup: lookupFor(url, named), headers: { 'User-Agent': 'Folvet' }, agent: false }
    request(url, options, (response) => {
      resolve({ status: response.statusCode ?? 0, location: response.headers.location ?? null })
      response.destroy()
    })
      .on('error', reject)
      .end()
  })
}
