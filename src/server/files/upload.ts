import { v7 as uuid } from 'uuid'
import type { CommittedChange, Edit } from '../../core/changes/edit'
import { attachFiles } from '../../core/commands/attachments'
import type { FileRecord } from '../../core/records/file'
import { FileId, type TopicId } from '../../core/records/ids'
import { Records } from '../../core/records/records'
import type { Author } from '../commit/commit-changes'
import { submitChange } from '../commit/queue'
import { snapshot } from '../database'
import { Failure } from '../http/failure'
import { loadInto } from '../records/tables'
import { storeContent } from './contents'

/** A name without path, control characters and surrounding space; never empty. */
export function plainName(name: string): string {
  const plain = name
    .split(/[\\/]/)
    .at(-1)!
    .replace(/[\p{Cc}\u202a-\u202e\u2066-\u2069]/gu, '')
    .trim()
    .slice(0, 200)
    .toWellFormed()
  return plain === '' || plain === '.' || plain === '..' ? 'file' : plain
}

/** Types that content alone does not tell apart from plain text, by the ending of the name. Nothing here can run. */
const TEXT_TYPES: Record<string, string> = { csv: 'text/csv', ics: 'text/calendar', md: 'text/markdown' }

export async function storeFile(name: string, stream: AsyncIterable<Uint8Array>): Promise<FileRecord> {
  const content = await storeContent(stream)
  const plain = plainName(name)
  const ending = plain.split('.').at(-1)!.toLowerCase()
  const type = content.type === 'text/plain' ? (TEXT_TYPES[ending] ?? content.type) : content.type
  return { id: FileId.parse(uuid()), sha256: content.sha256, name: plain, type, size: content.size, trashed: false }
}

/** Stores an upload and hangs it onto a topic, as one change. */
export async function uploadToTopic(
  collection: string,
  author: Author,
  topic: TopicId,
  name: string,
  stream: AsyncIterable<Uint8Array>,
): Promise<CommittedChange> {
  const records = await snapshot(async (client) => {
    const held = new Records()
    await loadInto(held, client, 'topic', collection, 'AND id = $2', [topic])
    await loadInto(held, client, 'attachment', collection, 'AND topic = $2', [topic])
    return held
  })
  if (!records.get('topic', topic)) throw new Failure(404, 'The topic for this file is gone.')
  const file = await storeFile(name, stream)
  const { change } = attachFiles(records, { topic, files: [file.id] }, { newId: uuid })
  const created: Edit = { kind: 'file', id: file.id, before: null, after: file }
  const label = change.label.replace('a file', file.name.slice(0, 80))
  const result = await submitChange(collection, {
    author,
    change: { ...change, label, edits: [created, ...change.edits] },
  })
  if (!result.ok) throw new Failure(409, result.problem.message)
  return result.change
}
