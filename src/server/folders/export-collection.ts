import { createWriteStream, existsSync, readdirSync } from 'node:fs'
import { mkdir, writeFile } from 'node:fs/promises'
import { dirname, join, resolve } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import yazl from 'yazl'
import { writeFolder } from '../../core/formats/collection-folder/write-folder'
import { wholeCollection } from '../collections'
import { readContent } from '../files/contents'
import { Failure } from '../http/failure'
import { exchange } from './exchange'

/** The same time in every zip, so that the same collection gives the same bytes. */
const TIME = new Date(Date.UTC(2020, 0, 1))

/**
 * Writes a collection as a folder of open formats, or as a zip of one where `out` ends in `.zip`. It is written beside and
 * takes its place when it is whole. Refused where something else stands there.
 */
export async function exportCollection(collection: string, out: string): Promise<{ out: string; files: number }> {
  const target = resolve(out)
  const isZip = target.toLowerCase().endsWith('.zip')
  if (existsSync(target) && (isZip || readdirSync(target).length > 0))
    throw new Failure(409, `There is something at ${target} already. Name a new ${isZip ? 'zip' : 'folder'}.`)
  const { records } = await wholeCollection(collection)
  const { texts, files } = writeFolder(records, collection)
  const contents = [
    ...texts.map(({ path, text }) => ({ path, content: () => Readable.from([Buffer.from(text)]) })),
    ...files.map(({ path, file }) => ({
      path,
      content: () => Readable.from(file.size === 0 ? [] : readContent(file.sha256, 0, file.size - 1)),
    })),
  ]
  await exchange(target, (unfinished) => (isZip ? writeZip : writeAll)(unfinished, contents))
  return { out: target, files: contents.length }
}

interface Content {
  path: string
  content(): Readable
}

async function writeAll(folder: string, contents: readonly Content[]): Promise<void> {
  await mkdir(folder, { recursive: true })
  for (const { path, content } of contents) {
    const file = join(folder, ...path.split('/'))
    await mkdir(dirname(file), { recursive: true })
    await writeFile(file, content())
  }
}

async function writeZip(file: string, contents: readonly Content[]): Promise<void> {
  const zip = new yazl.ZipFile()
  for (const { path, content } of contents)
    zip.addReadStreamLazy(path, { mtime: TIME, mode: 0o644 }, (ready) => ready(null, content()))
  zip.end()
  await pipeline(zip.outputStream, createWriteStream(file))
}
