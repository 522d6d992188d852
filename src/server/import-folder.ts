import { createReadStream } from 'node:fs'
import { readdir, readFile, stat } from 'node:fs/promises'
import { join, relative, sep } from 'node:path'
import { v7 as uuid } from 'uuid'
import type { Edit } from '../core/changes/edit'
import { importPages, type Page } from '../core/commands/import-pages'
import type { FileRecord } from '../core/records/file'
import { CollectionId, type FileId } from '../core/records/ids'
import { Records } from '../core/records/records'
import type { Author } from './commit/commit-changes'
import { submitChange } from './commit/queue'
import { database } from './database'
import { storeFile } from './files/upload'
import { Failure } from './http/failure'
import { selectRecords } from './records/tables'

const PAGE = /\.(md|markdown|txt)$/i

/**
 * Imports a folder, or one file, into a collection as one change: every text page becomes a map, every other file is
 * stored. Pages are read in the order of their paths. Returns what was made and what could not be followed.
 */
export async function importFolder(
  collection: string,
  author: Author,
  source: string,
): Promise<{
  maps: number
  topics: number
  files: number
  unread: { page: string; address: string; reason: string }[]
}> {
  const found = (await stat(source)).isDirectory() ? await filesBelow(source) : [source]
  const base = (await stat(source)).isDirectory() ? source : join(source, '..')
  const pathOf = (file: string) => relative(base, file).split(sep).join('/')
  const pages: Page[] = []
  const files = new Map<string, FileRecord>()
  for (const file of found) {
    if (PAGE.test(file)) pages.push({ path: pathOf(file), text: new TextDecoder().decode(await readFile(file)) })
    else files.set(pathOf(file), await storeFile(pathOf(file), createReadStream(file)))
  }
  const records = new Records()
  const client = await database().connect()
  try {
    for (const record of await selectRecords(client, 'collection', collection)) records.put('collection', record)
  } finally {
    client.release()
  }
  const ids = new Map<string, FileId>([...files].map(([path, file]) => [path, file.id]))
  const outcome = importPages(
    records,
    { collection: CollectionId.parse(collection), pages, files: ids },
    { newId: uuid },
  )
  const created = [...files.values()].map((file): Edit => ({ kind: 'file', id: file.id, before: null, after: file }))
  const result = await submitChange(collection, {
    author,
    change: { ...outcome.change, edits: [...created, ...outcome.change.edits] },
  })
  if (!result.ok) throw new Failure(409, result.problem.message)
  const topics = result.change.edits.filter((edit) => edit.kind === 'topic').length
  return { maps: outcome.maps.length, topics, files: files.size, unread: outcome.unread }
}

async function filesBelow(folder: string): Promise<string[]> {
  const entries = await readdir(folder, { withFileTypes: true, recursive: true })
  return entries
    .filter((entry) => entry.isFile() && !entry.name.startsWith('.'))
    .map((entry) => join(entry.parentPath ?? entry.path, entry.name))
    .sort()
}
