import { Readable } from 'node:stream'
import type { FileRecord } from '../../core/records/file'
import type { Asked } from '../http/asked'
import type { Reply } from '../http/reply'
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
  asked: Asked,
  content: { sha256: string; name: string; type: string; size: number },
  more: Record<string, string>,
): Reply {
  const disposition = SHOWN.has(content.type) ? 'inline' : 'attachment'
  const headers: Record<string, string> = {
    'Content-Type': content.type === 'text/plain' ? 'text/plain; charset=utf-8' : content.type,
    'Content-Disposition': dispositionOf(disposition, content.name),
    'Content-Security-Policy': "sandbox; default-src 'none'; style-src 'unsafe-inline'; img-src 'self' data:",
    'Accept-Ranges': 'bytes',
    ETag: `"${content.sha256}"`,
    ...more,
  }
  if (asked.header('if-none-match') === headers.ETag) return { status: 304, headers, body: null }
  const range = rangeOf(asked.header('range'), content.size)
  if (range === 'unsatisfiable')
    return { status: 416, headers: { ...headers, 'Content-Range': `bytes */${content.size}` }, body: null }
  const { start, end } = range ?? { start: 0, end: content.size - 1 }
  headers['Content-Length'] = String(end - start + 1)
  if (range) headers['Content-Range'] = `bytes ${start}-${end}/${content.size}`
  return { status: range ? 206 : 200, headers, body: Readable.from(readContent(content.sha256, start, end)) }
}

/** How a browser is to take a content, and under which name (RFC 6266, RFC 8187). */
export const dispositionOf = (how: 'inline' | 'attachment', name: string): string =>
  `${how}; filename*=UTF-8''${encodeURIComponent(name).replace(/['()*]/g, (sign) => `%${sign.charCodeAt(0).toString(16)}`)}`

/** Answers with a picture in about the width asked for. The same file never changes, so it is kept by the browser. */
export async function servePicture(asked: Asked, file: FileRecord, width: number): Promise<Reply> {
  const headers = {
    'Content-Type': 'image/webp',
    'Content-Security-Policy': "sandbox; default-src 'none'",
    'Cache-Control': 'private, max-age=31536000, immutable',
    ETag: `"${file.sha256}-${width}"`,
  }
  if (asked.header('if-none-match') === headers.ETag) return { status: 304, headers, body: null }
  return { status: 200, headers, body: await thumbnail(file, width, asked.gone) }
}

/** One range of bytes as in RFC 9110, 14.2; several ranges, or anything else, are answered with the whole. */
function rangeOf(header: string | null, size: number): { start: number; end: number } | 'unsatisfiable' | null {
  const match = /^bytes=(\d*)-(\d*)$/.exec(header ?? '')
  if (!match || (match[1] === '' && match[2] === '')) return null
  const start = match[1] === '' ? Math.max(0, size - Number(match[2])) : Number(match[1])
  const end = match[1] === '' || match[2] === '' ? size - 1 : Math.min(Number(match[2]), size - 1)
  return start > end || start >= size ? 'unsatisfiable' : { start, end }
}
