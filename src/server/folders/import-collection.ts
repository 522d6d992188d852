import { v7 as uuid } from 'uuid'
import type { Edit } from '../../core/changes/edit'
import { INDEX_PATH } from '../../core/formats/collection-folder/form'
import { readFolder } from '../../core/formats/collection-folder/read-folder'
import { ChangeId } from '../../core/records/ids'
import type { RecordByKind } from '../../core/records/kinds'
import { createCollection } from '../collections'
import type { Author } from '../commit/commit-changes'
import { commitParts, partsOf } from '../commit/commit-in-parts'
import { database, transaction } from '../database'
import { storeFile } from '../files/upload'
import { Failure } from '../http/failure'
import type { SourceFolder } from './folder-source'

/** Whether a folder is a collection as it is exported, rather than pages from anywhere. */
export const isCollectionFolder = ({ paths }: SourceFolder): boolean => paths.includes(INDEX_PATH)

/**
 * Makes a collection of a folder that was exported, as one step of history: with the same ids, and the id of the collection too where
 * nobody has it here. Nothing stays of a folder that cannot be read. Refused in words, as `readFolder` and as any change.
 */
export async function importCollection(
  source: SourceFolder,
  author: Author,
  title: string | null = null,
): Promise<{ collection: string; maps: number; topics: number; files: number }> {
  const texts = new Map<string, string>()
  for (const path of source.paths)
    if (path === INDEX_PATH || /^maps\/[^/]+\.(?:md|json)$/.test(path)) texts.set(path, await source.text(path))
  const folder = readFolder({ text: (path) => texts.get(path) }, uuid)
  const own = folder.records.flatMap(({ kind, record }) =>
    kind === 'collection' ? (record as RecordByKind['collection']) : [],
  )[0]!
  const files = await storeFiles(source, folder.files)
  const collection = await transaction((client) => createCollection(client, author.id, title ?? own.title, own.id))
  const edits = folder.records.map(({ kind, record }): Edit => {
    if (kind === 'file') return { kind, id: record.id, before: null, after: files.get(record.id)! }
    // Who said something elsewhere is told by their name alone: ids of people are those of this server.
    if (kind === 'comment')
      return {
        kind,
        id: record.id,
        before: null,
        after: { ...(record as RecordByKind['comment']), author: null, mentions: [] },
      }
    if (kind !== 'collection') return { kind, id: record.id, before: null, after: record } as Edit
    const after = {
      title: title ?? own.title,
      homeMap: own.homeMap,
      look: own.look,
      limits: own.limits,
      trashed: own.trashed,
    }
    return { kind, id: collection, before: {}, after }
  })
  try {
    const change = {
      id: ChangeId.parse(uuid()),
      label: `Import ${own.title.slice(0, 80)}`.toWellFormed(),
      edits,
      undoes: null,
    }
    const result = await commitParts(collection, partsOf(change), author)
    if (!result.ok) throw new Failure(409, `This folder cannot be imported: ${result.problem.message}`)
  } catch (error) {
    await database().query('DELETE FROM collection WHERE id = $1', [collection])
    throw error
  }
  const count = (kind: string) => folder.records.filter((record) => record.kind === kind).length
  return { collection, maps: count('map'), topics: count('topic'), files: count('file') }
}

/** Stores what the files hold; what they are is what their content says, whatever the index says. */
async function storeFiles(
  source: SourceFolder,
  files: readonly { path: string; record: RecordByKind['file'] }[],
): Promise<Map<string, RecordByKind['file']>> {
  const stored = new Map<string, RecordByKind['file']>()
  for (const { path, record } of files) {
    if (!source.paths.includes(path)) throw new Failure(404, `${path} is missing from this folder.`)
    const { sha256, type, size, picture } = await storeFile(record.name, source.bytes(path))
    stored.set(record.id, { ...record, sha256, type, size, picture })
  }
  return stored
}
