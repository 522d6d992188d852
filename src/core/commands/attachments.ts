import { generateNKeysBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { AttachmentId, type FileId, type TopicId } from '../records/ids'
import { command, named } from './command'

/** Hangs uploaded files onto a topic, in the order given. Refused where the topic is gone. */
export const attachFiles = command((change, args: { topic: TopicId; files: readonly FileId[] }) => {
  const topic = change.topic(args.topic)
  const last = change.records.attachments(topic.id).at(-1)?.rank ?? null
  const ranks = generateNKeysBetween(last, null, args.files.length)
  args.files.forEach((file, i) => {
    const id = change.newId(AttachmentId)
    change.create('attachment', { id, topic: topic.id, file, rank: ranks[i]!, trashed: false })
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
