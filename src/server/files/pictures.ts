import { LRUCache } from 'lru-cache'
import type { FileRecord } from '../../core/records/file'
import { database } from '../database'
import { type Content, readContent } from './contents'
import { askPictures, CannotBeShown } from './picture-worker'

/** Media types of pictures that can stand on a topic. */
const PICTURES = new Set(['image/png', 'image/jpeg', 'image/gif', 'image/webp', 'image/avif', 'image/svg+xml'])
/** Larger ones stay files, in bytes. */
const MOST_BYTES = 40 * 1024 * 1024
/** Widths in which pictures are handed out, in px: few, so that each is made once. */
const WIDTHS = [160, 320, 640, 1_280, 2_560]

async function contentOf({ sha256, size }: Pick<Content, 'sha256' | 'size'>): Promise<Buffer> {
  const pieces: Uint8Array[] = []
  for await (const piece of readContent(sha256, 0, size - 1)) pieces.push(piece)
  return Buffer.concat(pieces)
}

/** The size of a picture in px as it is seen, turned as the camera says; null for everything else, also what only claims to be one. */
export async function pictureSize(content: Content): Promise<FileRecord['picture']> {
  if (!PICTURES.has(content.type) || content.size === 0 || content.size > MOST_BYTES) return null
  try {
    return (await askPictures({ task: 'size', bytes: await contentOf(content) })) as FileRecord['picture']
  } catch (error) {
    if (error instanceof CannotBeShown) return null
    throw error
  }
}

/** Pictures that could not be made a while ago: each is tried once in ten minutes. */
const failed = new LRUCache<string, true>({ max: 10_000, ttl: 600_000 })

/**
 * A picture at least `width` px wide where it is that large itself, as WebP: made when first asked for, then kept.
 * Throws CannotBeShown where it cannot be made within the limits.
 */
export async function thumbnail(file: FileRecord, width: number, gone: AbortSignal): Promise<Buffer> {
  const step = WIDTHS.find((wide) => wide >= width) ?? WIDTHS.at(-1)!
  const { rows } = await database().query<{ bytes: Buffer }>(
    'SELECT bytes FROM thumbnail WHERE sha256 = $1 AND width = $2',
    [file.sha256, step],
  )
  if (rows[0]) return rows[0].bytes
  const key = `${file.sha256} ${step}`
  if (failed.has(key)) throw new CannotBeShown()
  // A drawing of lines is scaled while it is still lines.
  const density = file.type === 'image/svg+xml' && file.picture ? Math.min(2_400, (72 * step) / file.picture.width) : 72
  const given = { task: 'thumbnail' as const, bytes: await contentOf(file), width: step, density: Math.max(1, density) }
  try {
    const bytes = Buffer.from((await askPictures(given, gone)) as Uint8Array)
    await database().query('INSERT INTO thumbnail (sha256, width, bytes) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING', [
      file.sha256,
      step,
      bytes,
    ])
    return bytes
  } catch (error) {
    if (error instanceof CannotBeShown && !gone.aborted) failed.set(key, true)
    throw error
  }
}
