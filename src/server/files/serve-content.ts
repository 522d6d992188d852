import type { FileRecord } from '../../core/records/file'
import { streamFrom } from '../http/streams'
import { readContent } from './contents'
import { thumbnail } from './pictures'

/** Types that a browser may show by itself: pictures and documents in which nothing can run. */
const SHOWN = new Set([
  'image/png',
  'image/jpeg',
  'image/gif',
  'image/webp',
  'image/avif',
  'application/pdf',
  'text/plain',
])

/**
 * Answers with stored content, whole or the range asked for. Everything comes sandboxed, with its true type, and is
 * offered for saving unless it is of a kind in which nothing can run.
 */
export function serveContent(
  request: Request,
  content: { sha256: string; name: string; type: string; size: number },
  cache: string,
): Response {
  const disposition = SHOWN.has(content.type) ? 'inline' : 'attachment'
  const headers = new Headers({
    'Content-Type': content.type === 'text/plain' ? 'text/plain; charset=utf-8' : content.type,
    'Content-Disposition': `${disposition}; filename*=UTF-8''${encodeURIComponent(content.name).replace(/['()*]/g, (c) => `%${c.charCodeAt(0).toString(16)}`)}`,
    'Content-Security-Policy': "sandbox; default-src 'none'; style-src 'unsafe-inline'; img-src 'self' data:",
    'Accept-Ranges': 'bytes',
    'Cache-Control': cache,
    ETag: `"${content.sha256}"`,
  })
  if (request.headers.get('if-none-match') === `"${content.sha256}"`)
    return new Response(null, { status: 304, headers })
  const range = rangeOf(request.headers.get('range'), content.size)
  if (range === 'unsatisfiable') {
    headers.set('Content-Range', `bytes */${content.size}`)
    return new Response(null, { status: 416, headers })
  }
  const { start, end } = range ?? { start: 0, end: content.size - 1 }
  headers.set('Content-Length', String(end - start + 1))
  if (range) headers.set('Content-Range', `bytes ${start}-${end}/${content.size}`)
  return new Response(streamFrom(readContent(content.sha256, start, end)), { status: range ? 206 : 200, headers })
}

/** Answers with a picture in about the width asked for. The same file never changes, so it is kept by the browser. */
export async function servePicture(request: Request, file: FileRecord, width: number): Promise<Response> {
  const headers = new Headers({
    'Content-Type': 'image/webp',
    'Content-Security-Policy': "sandbox; default-src 'none'",
    'Cache-Control': 'private, max-age=31536000, immutable',
    ETag: `"${file.sha256}-${width}"`,
  })
  if (request.headers.get('if-none-match') === headers.get('ETag')) return new Response(null, { status: 304, headers })
  return new Response(new Uint8Array(await thumbnail(file, width)), { headers })
}

/** One range of bytes as in RFC 9110, 14.2; several ranges, or anything else, are answered with the whole. */
function rangeOf(header: string | null, size: number): { start: number; end: number } | 'unsatisfiable' | null {
  const match = /^bytes=(\d*)-(\d*)$/.exec(header ?? '')
  if (!match || (match[1] === '' && match[2] === '')) return null
  const start = match[1] === '' ? Math.max(0, size - Number(match[2])) : Number(match[1])
  const end = match[1] === '' || match[2] === '' ? size - 1 : Math.min(Number(match[2]), size - 1)
  return start > end || start >= size ? 'unsatisfiable' : { start, end }
}
