import { readContent } from '../files/contents'
import { serveContent } from '../files/serve-content'
import type { Asked } from '../http/asked'
import type { Reply } from '../http/reply'
import { pageAt } from './publication-rows'

const POLICY =
  "sandbox allow-scripts allow-popups allow-downloads; default-src 'self'; style-src 'self' 'unsafe-inline'; base-uri 'none'; form-action 'none'; object-src 'none'; frame-ancestors 'none'"

/**
 * The sandbox of a page makes its origin opaque: whatever the page asks for, fonts, pictures and files, comes from
 * another origin, and must say that it may be used there. All of it is public.
 */
const PUBLIC = {
  'Cache-Control': 'no-cache',
  'Cross-Origin-Resource-Policy': 'cross-origin',
  'Access-Control-Allow-Origin': '*',
}

/** Answers with a page of a published site; the sandbox keeps its script out of our origin. */
export async function serveSite(asked: Asked, address: string, path: string): Promise<Reply> {
  const wanted = path === '' ? 'index.html' : path
  const found = await pageAt(address, wanted)
  const page = found ?? (await pageAt(address, '404.html'))
  if (!page)
    return {
      status: 404,
      headers: { 'Content-Type': 'text/plain; charset=utf-8' },
      body: 'There is no such site.',
    }
  if (page.content)
    return serveContent(
      asked,
      { sha256: page.content, name: wanted.split('/').at(-1)!, type: page.type, size: page.size },
      PUBLIC,
    )
  const headers = { 'Content-Type': page.type, 'Content-Security-Policy': POLICY, ...PUBLIC }
  return { status: found ? 200 : 404, headers, body: page.bytes! }
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
