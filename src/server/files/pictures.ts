import { Readable } from 'node:stream'
import sharp from 'sharp'
import type { FileRecord } from '../../core/records/file'
import { database } from '../database'
import { type Content, readContent } from './contents'

/** Media types of pictures that can stand on a topic. */
const PICTURES = new Set(['image/png', 'image/jpeg', 'image/gif', 'image/webp', 'image/avif', 'image/svg+xml'])
/** Larger ones stay files, in bytes. */
const MOST_BYTES = 40 * 1024 * 1024
/** Widths in which pictures are handed out, in px: few, so that each is made once. */
const WIDTHS = [160, 320, 640, 1_280, 2_560]

const contentOf = ({ sha256, size }: Pick<Content, 'sha256' | 'size'>) =>
  Readable.from(readContent(sha256, 0, size - 1))

/** The size of a picture in px as it is seen, turned as the camera says; null for everything else, also what only claims to be one. */
export async function pictureSize(content: Content): Promise<FileRecord['picture']> {
  if (!PICTURES.has(content.type) || content.size === 0 || content.size > MOST_BYTES) return null
  try {
    const { autoOrient } = await contentOf(content).pipe(sharp()).metadata()
    return autoOrient.width > 0 && autoOrient.height > 0 ? autoOrient : null
  } catch {
    return null
  }
}

/** A picture at least `width` px wide where it is that large itself, as WebP: made when first asked for, then kept. */
export async function thumbnail(file: FileRecord, width: number): Promise<Buffer> {
  const step = WIDTHS.find((wide) => wide >= width) ?? WIDTHS.at(-1)!
  const { rows } = await database().query<{ bytes: Buffer }>(
    'SELECT bytes FROM thumbnail WHERE sha256 = $1 AND width = $2',
    [file.sha256, step],
  )
  if (rows[0]) return rows[0].bytes
  // A drawing of lines is scaled while it is still lines.
  const density = file.type === 'image/svg+xml' && file.picture ? Math.min(2_400, (72 * step) / file.picture.width) : 72
  const bytes = await contentOf(file)
    .pipe(sharp({ density: Math.max(1, density) }))
    .autoOrient()
    .resize({ width: step, withoutEnlargement: true })
    .webp({ quality: 84 })
    .toBuffer()
  await database().query('INSERT INTO thumbnail (sha256, width, bytes) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING', [
    file.sha256,
    step,
    bytes,
  ])
  return bytes
}
