import { generateNKeysBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { AttachmentId, type FileId, type TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { Draft, type Making, named, type Outcome } from './command'

/** Hangs uploaded files onto a topic, in the order given. */
export function attachFiles(records: Records, args: { topic: TopicId; files: FileId[] }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const ranks = generateNKeysBetween(records.attachments(topic.id).at(-1)?.rank ?? null, null, args.files.length)
  args.files.forEach((file, i) => {
    draft.create('attachment', {
      id: draft.newId(AttachmentId),
      topic: topic.id,
      file,
      rank: ranks[i]!,
      trashed: false,
    })
  })
  const what = args.files.length === 1 ? 'a file' : `${args.files.length} files`
  return draft.outcome(`Attach ${what} to ${named(topic.text)}`, [topic.id])
}

export function removeAttachment(records: Records, args: { attachment: AttachmentId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const attachment = records.get('attachment', args.attachment) ?? refuse('gone', 'This file is gone.')
  const name = records.get('file', attachment.file)?.name ?? ''
  draft.update('attachment', args.attachment, { trashed: true })
  return draft.outcome(`Remove ${name === '' ? 'a file' : named(name)}`, [attachment.topic])
}
