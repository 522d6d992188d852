import { generateNKeysBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { MOST_VERSIONS, newAttachment } from '../records/attachment'
import { AttachmentId, type FileId, type TopicId } from '../records/ids'
import { command, named } from './command'

/** Hangs uploaded files onto a topic, in the order given. Refused where the topic is gone. */
export const attachFiles = command((change, args: { topic: TopicId; files: readonly FileId[] }) => {
  const topic = change.topic(args.topic)
  const last = change.records.attachments(topic.id).at(-1)?.rank ?? null
  const ranks = generateNKeysBetween(last, null, args.files.length)
  args.files.forEach((file, i) => {
    const id = change.newId(AttachmentId)
    change.create('attachment', newAttachment({ id, topic: topic.id, file, rank: ranks[i]! }))
  })
  const what = args.files.length === 1 ? 'a file' : `${args.files.length} files`
  return { label: `Attach ${what} to ${named(topic.text)}`, select: [topic.id] }
})

/** Takes a file off its topic; the file itself stays in the collection. Refused where it is gone. */
export const removeAttachment = command((change, args: { attachment: AttachmentId }) => {
  const attachment = change.records.get('attachment', args.attachment) ?? refuse('gone', 'This file is gone.')
  const name = change.records.get('file', attachment.file)?.name ?? ''
  change.update('attachment', args.attachment, { trashed: true })
  return { label: `Remove ${name === '' ? 'a file' : named(name)}`, select: [attachment.topic] }
})

/**
 * Puts another file in the place of an attached one, which stays as its earlier version; one that was an earlier version comes back
 * so. What is new is still to be read. Refused where the attachment is gone, and for the file that is there already.
 */
export const replaceFile = command((change, args: { attachment: AttachmentId; file: FileId }) => {
  const { id, topic, file, earlier } =
    change.records.get('attachment', args.attachment) ?? refuse('gone', 'This file is gone.')
  if (file === args.file) refuse('invalid', 'This is the version that is there already.')
  const kept = [file, ...earlier.filter((other) => other !== args.file)].slice(0, MOST_VERSIONS)
  change.update('attachment', id, { file: args.file, earlier: kept, read: false })
  return { label: `Replace ${named(change.records.get('file', file)?.name ?? 'a file')}`, select: [topic] }
})
