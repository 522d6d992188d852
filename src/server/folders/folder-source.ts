import { createReadStream } from 'node:fs'
import { lstat, readdir, readFile, stat } from 'node:fs/promises'
import { basename, dirname, join, relative, sep } from 'node:path'
import type { Readable } from 'node:stream'
import yauzl from 'yauzl'
import { Failure } from '../http/failure'

/** Files below one folder, wherever that lies: on disk or in a zip. Paths use `/` and never lead out of it. */
export interface SourceFolder {
  /** The paths of all files, in order. */
  paths: readonly string[]
  /** A whole text file; refused where it is larger than is read. */
  text(path: string): Promise<string>
  /** The bytes of a file, which is opened when the first of them is asked for: what goes wrong is told to who reads. */
  bytes(path: string): AsyncIterable<Uint8Array>
  close(): void
}

/** What is read at most: of a folder or zip as a whole, and of one text file. */
const MOST_FILES = 100_000
const MOST_BYTES = 4 * 1024 ** 3
const MOST_TEXT_BYTES = 64 * 1024 ** 2

const tooLargeText = (path: string) => new Failure(413, `${path} is too large: a text of at most 64 MB is read.`)
const decode = (bytes: Uint8Array) => new TextDecoder().decode(bytes)

/** Opens a folder, a zip that holds one, or a single file as a folder of its own. Throws a Failure where there is nothing. */
export async function openSource(path: string): Promise<SourceFolder> {
  const found = await stat(path).catch(() => null)
  if (!found) throw new Failure(404, `There is nothing at ${path}.`)
  if (found.isDirectory()) return openDirectory(path)
  return path.toLowerCase().endsWith('.zip') ? openZip(path) : filesBelow(dirname(path), [basename(path)])
}

async function openDirectory(root: string): Promise<SourceFolder> {
  const entries = await readdir(root, { withFileTypes: true, recursive: true })
  // Links are not followed: they could lead out of the folder, or round in a circle.
  const files = entries.filter((entry) => entry.isFile() && !entry.name.startsWith('.'))
  if (files.length > MOST_FILES) throw new Failure(413, `This folder holds more than ${MOST_FILES} files.`)
  const paths = files.map((entry) => relative(root, join(entry.parentPath, entry.name)).split(sep).join('/')).sort()
  return filesBelow(root, paths)
}

function filesBelow(root: string, paths: readonly string[]): SourceFolder {
  const at = (path: string) => join(root, ...path.split('/'))
  return {
    paths,
    async text(path) {
      if ((await lstat(at(path))).size > MOST_TEXT_BYTES) throw tooLargeText(path)
      return decode(await readFile(at(path)))
    },
    async *bytes(path) {
      yield* createReadStream(at(path))
    },
    close() {},
  }
}

/** Zips are read entry by entry: what they say of sizes is held against what comes, so that nothing unpacks without end. */
async function openZip(file: string): Promise<SourceFolder> {
  const zip = await open(file)
  const entries = new Map<string, yauzl.Entry>()
  try {
    await listEntries(zip, entries)
  } catch (error) {
    zip.close()
    throw new Failure(400, `This zip cannot be read: ${error instanceof Error ? error.message : 'its list is broken'}.`)
  }
  const top = commonFolder([...entries.keys()])
  async function* bytes(path: string): AsyncIterable<Uint8Array> {
    const entry = entries.get(top + path)
    if (!entry) throw new Failure(404, `${path} is missing from this zip.`)
    yield* await new Promise<Readable>((resolve, reject) =>
      zip.openReadStream(entry, (error, opened) => (error ? reject(error) : resolve(opened))),
    )
  }
  return {
    paths: [...entries.keys()].map((path) => path.slice(top.length)).sort(),
    async text(path) {
      if ((entries.get(top + path)?.uncompressedSize ?? 0) > MOST_TEXT_BYTES) throw tooLargeText(path)
      const parts: Uint8Array[] = []
      for await (const part of bytes(path)) parts.push(part)
      return decode(Buffer.concat(parts))
    },
    bytes,
    close: () => zip.close(),
  }
}

const open = (file: string): Promise<yauzl.ZipFile> =>
  new Promise((resolve, reject) =>
    yauzl.open(file, { lazyEntries: true, autoClose: false, validateEntrySizes: true }, (error, zip) =>
      error ? reject(new Failure(400, `This zip cannot be read: ${error.message}.`)) : resolve(zip),
    ),
  )

/** Lists the files of a zip; names that lead out of it are refused by the reader itself. */
function listEntries(zip: yauzl.ZipFile, entries: Map<string, yauzl.Entry>): Promise<void> {
  let bytes = 0
  return new Promise((resolve, reject) => {
    zip.on('error', reject)
    zip.on('end', resolve)
    zip.on('entry', (entry: yauzl.Entry) => {
      bytes += entry.uncompressedSize
      if (entries.size >= MOST_FILES) reject(new Error(`it holds more than ${MOST_FILES} files`))
      else if (bytes > MOST_BYTES) reject(new Error('unpacked it would be larger than 4 GB'))
      else if (entries.has(entry.fileName)) reject(new Error(`it holds ${entry.fileName} twice`))
      else {
        const isHidden = entry.fileName.split('/').some((part) => part.startsWith('.'))
        if (!entry.fileName.endsWith('/') && !isHidden) entries.set(entry.fileName, entry)
        zip.readEntry()
      }
    })
    zip.readEntry()
  })
}

/** The folder in which everything of a zip lies, with its slash; empty where there is none. */
function commonFolder(paths: readonly string[]): string {
  const [first = ''] = paths
  const folder = first.slice(0, first.indexOf('/') + 1)
  return folder !== '' && paths.every((path) => path.startsWith(folder)) ? folder : ''
}
