import { Failure } from '../../http/failure'
import { readContent } from '../contents'
import { Pages } from './pages'
import { readerFor } from './reader-for'

/** Larger contents are not read, in bytes. */
const MOST_BYTES = 60 * 1024 * 1024

export interface ContentToRead {
  sha256: string
  size: number
  type: string
  name: string
}

/** The text of a content, page by page; null where it is of a kind without any. In a thread for it. Throws where it cannot be read. */
export async function takeText({ sha256, size, type, name }: ContentToRead): Promise<string[] | null> {
  const read = readerFor(type, name)
  if (!read) return null
  if (size > MOST_BYTES) throw new Failure(422, 'This file is too large to be read.')
  const pieces: Uint8Array[] = []
  for await (const piece of readContent(sha256, 0, size - 1)) pieces.push(piece)
  const pages = new Pages()
  await read(Buffer.concat(pieces), pages)
  return pages.texts
}
