import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import type { CommittedChange, Edit } from '../../core/changes/edit'
import { attachFiles, replaceFile } from '../../core/commands/attachments'
import type { Outcome } from '../../core/commands/command'
import { setBackground } from '../../core/commands/looks'
import { putPicture } from '../../core/commands/pictures'
import { backdropOf } from '../../core/look/styles'
import type { FileRecord } from '../../core/records/file'
import { fileNameFrom } from '../../core/records/file-name'
import { type AttachmentId, ChangeId, FileId, type TopicId } from '../../core/records/ids'
import { Records } from '../../core/records/records'
import { mayEdit, mayRead, reachesAll } from '../../core/rights/grant'
import { changeOf } from '../commit/history'
import { submitChange } from '../commit/queue'
import { authorOf } from '../commit/receive-changes'
import { snapshot } from '../database'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import { GIVEN, loadByIds, loadInto } from '../records/tables'
import { storeContent } from './contents'
import { pictureSize } from './pictures'
import { roomFor } from './quota'
import { noteToRead } from './reading/reading-rows'

/** Types that content alone does not tell apart from plain text, by the ending of the name. Nothing here can run. */
const TEXT_TYPES: Record<string, string> = { csv: 'text/csv', ics: 'text/calendar', md: 'text/markdown' }

export async function storeFile(name: string, stream: AsyncIterable<Uint8Array>, most?: number): Promise<FileRecord> {
  const content = await storeContent(stream, most)
  await noteToRead(content.sha256)
  const stored = fileNameFrom(name)
  const ending = stored.split('.').at(-1)!.toLowerCase()
  const type = content.type === 'text/plain' ? (TEXT_TYPES[ending] ?? content.type) : content.type
  const { sha256, size } = content
  const picture = await pictureSize(content)
  return { id: FileId.parse(uuid()), sha256, name: stored, type, size, picture, trashed: false }
}

/** What an upload becomes: a file on a topic, its picture, or what lies behind the map of the topic. */
export const Use = z.enum(['file', 'picture', 'background'])

/** What an upload is for; `replaces` names the file on the topic whose newer version it is, `id` the change that it makes. */
interface Purpose {
  use: z.infer<typeof Use>
  replaces: AttachmentId | null
  id: ChangeId | null
}

/**
 * Of several files that somebody attaches at once, which are one step of history: the id of the first's change, or of the change that
 * made the topics for them, and how many they are.
 */
export interface UploadStep {
  id: ChangeId
  of: number
  isFirst: boolean
}

/** The step that a file belongs to: one that this person has begun, or begins with it; null for a file by itself. */
async function stepOf({ collection, person }: Member, step: UploadStep | null): Promise<UploadStep | null> {
  if (!step || step.isFirst) return step
  const first = await changeOf(collection, step.id)
  return first?.person === person.id && (first.step ?? first.id) === step.id ? step : null
}

function putToUse(records: Records, topic: TopicId, file: FileRecord, { use, replaces }: Omit<Purpose, 'id'>): Outcome {
  const newIds = { newId: uuid }
  if (replaces) return replaceFile(records, { attachment: replaces, file: file.id }, newIds)
  if (use === 'file') return attachFiles(records, { topic, files: [file.id] }, newIds)
  const natural = file.picture
  if (!natural) throw new Failure(415, `${file.name} is not a picture that can be shown. Nothing was changed.`)
  if (use === 'picture') return putPicture(records, { topic, file: file.id, natural }, newIds)
  const { map } = records.need('topic', topic).place
  const before = backdropOf(records, map)
  const background = { pattern: before.pattern, tone: before.tone, picture: file.id }
  return setBackground(records, { at: { map }, background }, newIds)
}

/** Stores an upload that hangs nowhere yet, for pages that are to be brought in with it. */
export async function uploadForPages(
  member: Member,
  name: string,
  stream: AsyncIterable<Uint8Array>,
  id: ChangeId | null,
): Promise<CommittedChange> {
  const { collection, person, reach } = member
  if (!reachesAll(reach)) throw new Failure(403, 'This collection is open to you in parts only.')
  const file = await storeFile(name, stream, await roomFor(collection, person))
  const edits: Edit[] = [{ kind: 'file', id: file.id, before: null, after: file }]
  const change = { id: id ?? ChangeId.parse(uuid()), label: `Upload ${file.name.slice(0, 80)}`, edits, undoes: null }
  const result = await submitChange(collection, { author: authorOf(member), change })
  if (!result.ok) throw new Failure(result.problem.code === 'forbidden' ? 403 : 409, result.problem.message)
  return result.change
}

/** Stores an upload and puts it to its use at a topic, as one change. */
export async function uploadToTopic(
  member: Member,
  topic: TopicId,
  name: string,
  purpose: Purpose,
  stream: AsyncIterable<Uint8Array>,
  asked: UploadStep | null = null,
): Promise<CommittedChange> {
  const { collection, person, reach } = member
  const step = await stepOf(member, asked)
  const records = await snapshot(async (client) => {
    const held = new Records()
    await loadInto(held, client, 'topic', collection, 'AND id = $2', [topic])
    await loadInto(held, client, 'attachment', collection, 'AND topic = $2', [topic])
    await loadInto(held, client, 'collection', collection)
    const maps = [...held.all('topic')].map(({ place }) => place.map)
    await loadByIds(held, client, 'map', collection, GIVEN, [maps])
    return held
  })
  const there = records.get('topic', topic)
  if (!there || !mayRead(reach, there.place.map)) throw new Failure(404, 'The topic for this file is gone.')
  if (!mayEdit(reach, there.place.map)) throw new Failure(403, 'Your role on this map does not allow this.')
  const replaced = purpose.replaces && records.get('attachment', purpose.replaces)
  if (purpose.replaces && (!replaced || replaced.trashed))
    throw new Failure(404, 'The file that this one replaces is gone.')
  const file = await storeFile(name, stream, await roomFor(collection, person))
  const { change } = putToUse(records, topic, file, purpose)
  const created: Edit = { kind: 'file', id: file.id, before: null, after: file }
  // The first of a step stands for all of it.
  const many = change.label.replace(/^Put a picture on|Attach a file to/, `Attach ${step?.of} files to`)
  const label = step?.isFirst ? many : change.label.replace('a file', file.name.slice(0, 80))
  const id = step?.isFirst ? step.id : (purpose.id ?? change.id)
  const result = await submitChange(collection, {
    author: authorOf(member),
    change: { ...change, id, label, edits: [created, ...change.edits] },
    step: step?.id ?? null,
  })
  if (!result.ok) throw new Failure(result.problem.code === 'forbidden' ? 403 : 409, result.problem.message)
  return result.change
}
