import { readContent } from '../files/contents'
import { serveContent } from '../files/serve-content'
import { pageAt } from './publication-rows'

const POLICY =
  "sandbox allow-scripts allow-popups allow-downloads; default-src 'self'; style-src 'self' 'unsafe-inline'; base-uri 'none'; form-action 'none'; object-src 'none'; frame-ancestors 'none'"

/**
 * Answers with a page of a published site. The sandbox keeps its script out of our origin; assets are readable from
 * that sandbox, whose origin is opaque.
 */
export async function serveSite(request: Request, address: string, path: string): Promise<Response> {
  const asked = path === '' ? 'index.html' : path
  const found = await pageAt(address, asked)
  const page = found ?? (await pageAt(address, '404.html'))
  if (!page)
    return new Response('There is no such site.', {
      status: 404,
      headers: { 'Content-Type': 'text/plain; charset=utf-8' },
    })
  if (page.content)
    return serveContent(
      request,
      { sha256: page.content, name: asked.split('/').at(-1)!, type: page.type, size: page.size },
      'no-cache',
    )
  const headers = {
    'Content-Type': page.type,
    'Content-Security-Policy': POLICY,
    'Cache-Control': 'no-cache',
    'Cross-Origin-Resource-Policy': 'cross-origin',
    // Fonts asked for from the sandbox are cross-origin requests.
    'Access-Control-Allow-Origin': '*',
  }
  return new Response(new Uint8Array(page.bytes!), { status: found ? 200 : 404, headers })
}

/** All bytes of a page, for the zip. */
export async function bytesOfPage(address: string, path: string): Promise<Buffer> {
  const page = await pageAt(address, path)
  if (!page) return Buffer.alloc(0)
  if (page.bytes) return page.bytes
  const parts: Uint8Array[] = []
  for await (const part of readContent(page.content!, 0, page.size - 1)) parts.push(part)
  return Buffer.concat(parts)
}
