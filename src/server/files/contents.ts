import { createHash } from 'node:crypto'
import { fileTypeFromBuffer } from 'file-type'
import { MAX_FILE_BYTES } from '../../core/records/file'
import { type Client, database, transaction } from '../database'

const CHUNK = 1024 * 1024

export class TooLarge extends Error {}

export interface Content {
  sha256: string
  size: number
  /** Media type found in the content; `text/plain` for text, else `application/octet-stream`. */
  type: string
}

/**
 * Stores a stream of bytes in chunks and names it by its SHA-256. Content that is known already is stored once. Each chunk
 * is written by itself, so that nothing of the database is held while the sender takes their time; what was broken off is
 * removed, here or later by `removeUnused`. Throws TooLarge beyond `most` bytes.
 */
export async function storeContent(stream: AsyncIterable<Uint8Array>, most = MAX_FILE_BYTES): Promise<Content> {
  // Chunks need a name before the hash is known: they move to it at the end, within a transaction.
  const interim = `interim-${crypto.randomUUID()}`
  await database().query('INSERT INTO content (sha256, size) VALUES ($1, 0)', [interim])
  try {
    const hash = createHash('sha256')
    let size = 0
    let head: Buffer = Buffer.alloc(0)
    let number = 0
    for await (const chunk of chunked(stream)) {
      size += chunk.length
      if (size > most) throw new TooLarge('This file is too large.')
      if (number === 0) head = chunk.subarray(0, 4_100)
      hash.update(chunk)
      await database().query('INSERT INTO content_chunk (sha256, number, bytes) VALUES ($1, $2, $3)', [
        interim,
        number++,
        chunk,
      ])
    }
    const sha256 = hash.digest('hex')
    await transaction((client) => rename(client, interim, sha256, size))
    return { sha256, size, type: await typeOf(head) }
  } catch (error) {
    await database()
      .query('DELETE FROM content WHERE sha256 = $1', [interim])
      .catch(() => {})
    throw error
  }
}

async function rename(client: Client, interim: string, sha256: string, size: number): Promise<void> {
  const { rows } = await client.query<{ fresh: boolean }>(
    `INSERT INTO content (sha256, size) VALUES ($1, $2)
     ON CONFLICT (sha256) DO UPDATE SET stored_at = now() RETURNING xmax = 0 AS fresh`,
    [sha256, size],
  )
  if (rows[0]?.fresh) await client.query('UPDATE content_chunk SET sha256 = $2 WHERE sha256 = $1', [interim, sha256])
  await client.query('DELETE FROM content WHERE sha256 = $1', [interim])
}

const NAMED_NOWHERE = `NOT EXISTS (SELECT 1 FROM file f WHERE f.sha256 = c.sha256)
  AND NOT EXISTS (SELECT 1 FROM publication_page p WHERE p.content = c.sha256)`

/** Removes content that nobody names and that was uploaded over an hour ago: no change with it is on its way any more. */
export async function removeUnused(): Promise<void> {
  await database().query(`DELETE FROM content c WHERE stored_at < now() - interval '1 hour' AND ${NAMED_NOWHERE}`)
}

/** Removes those of some contents that nobody names and nobody has uploaded lately. */
export async function removeUnusedOf(client: Client, contents: readonly string[]): Promise<void> {
  await client.query(
    `DELETE FROM content c WHERE sha256 = ANY($1) AND stored_at < now() - interval '1 minute' AND ${NAMED_NOWHERE}`,
    [contents],
  )
}

async function* chunked(stream: AsyncIterable<Uint8Array>): AsyncGenerator<Buffer> {
  let parts: Uint8Array[] = []
  let length = 0
  for await (const part of stream) {
    parts.push(part)
    length += part.length
    while (length >= CHUNK) {
      const joined = Buffer.concat(parts)
      yield joined.subarray(0, CHUNK)
      const rest = joined.subarray(CHUNK)
      parts = [rest]
      length = rest.length
    }
  }
  if (length > 0) yield Buffer.concat(parts)
}

/** A drawing in SVG: its first element tells, behind a declaration, comments and space. */
const SVG = /^\ufeff?(?:\s|<\?xml[^>]*>|<!--(?:(?!-->)[\s\S])*-->|<!DOCTYPE[^>]*>)*<svg[\s>]/i

async function typeOf(head: Buffer): Promise<string> {
  const found = await fileTypeFromBuffer(head)
  const text = head.toString('utf8')
  if (found) return found.mime === 'application/xml' && SVG.test(text) ? 'image/svg+xml' : found.mime
  // A cut through the middle of a letter at the end of the sample is no sign of binary content.
  const readable = head.length > 0 && !text.includes('\u0000') && !text.slice(0, -4).includes('\ufffd')
  if (!readable) return 'application/octet-stream'
  return SVG.test(text) ? 'image/svg+xml' : 'text/plain'
}

/** The bytes from `start` to `end` (inclusive), chunk by chunk. */
export async function* readContent(sha256: string, start: number, end: number): AsyncGenerator<Uint8Array> {
  for (let number = Math.floor(start / CHUNK); number * CHUNK <= end; number++) {
    const { rows } = await database().query<{ bytes: Buffer }>(
      'SELECT bytes FROM content_chunk WHERE sha256 = $1 AND number = $2',
      [sha256, number],
    )
    const bytes = rows[0]?.bytes
    if (!bytes) return
    const offset = number * CHUNK
    yield bytes.subarray(Math.max(0, start - offset), Math.min(bytes.length, end - offset + 1))
  }
}
