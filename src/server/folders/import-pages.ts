import { v7 as uuid } from 'uuid'
import type { Edit } from '../../core/changes/edit'
import { importPages } from '../../core/commands/import-pages'
import type { Page } from '../../core/formats/page-file'
import type { FileRecord } from '../../core/records/file'
import { CollectionId, type FileId } from '../../core/records/ids'
import { Records } from '../../core/records/records'
import type { Author } from '../commit/commit-changes'
import { commitParts, partsOf } from '../commit/commit-in-parts'
import { database } from '../database'
import { storeFile } from '../files/upload'
import { Failure } from '../http/failure'
import { selectRecords } from '../records/tables'
import type { SourceFolder } from './folder-source'

const PAGE_NAME = /\.(md|markdown|txt)$/i

/**
 * Imports a folder of pages into a collection as one step of history: every text page becomes a map, every other file is
 * stored. Pages are read in the order of their paths. Returns what was made and what could not be followed.
 */
export async function importPageFolder(
  collection: string,
  author: Author,
  source: SourceFolder,
): Promise<{
  maps: number
  topics: number
  files: number
  unread: { page: string; address: string; reason: string }[]
}> {
  const pages: Page[] = []
  const files = new Map<string, FileRecord>()
  for (const path of source.paths) {
    if (PAGE_NAME.test(path)) pages.push({ path, text: await source.text(path) })
    else files.set(path, await storeFile(path, source.bytes(path)))
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
  const { change } = outcome
  const result = await commitParts(collection, partsOf({ ...change, edits: [...created, ...change.edits] }), author)
  if (!result.ok) throw new Failure(409, result.problem.message)
  const topics = change.edits.filter((edit) => edit.kind === 'topic').length
  return { maps: outcome.maps.length, topics, files: files.size, unread: outcome.unread }
}
