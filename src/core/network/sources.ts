import type { AttachmentId, FileId, TopicId, WeblinkId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { readableAddress } from '../records/weblink'
import { branch } from '../tree/walk'

/** Something to read that hangs on a topic: a file, or a page on the web. */
export type Source = { kind: 'attachment'; id: AttachmentId } | { kind: 'weblink'; id: WeblinkId }

export type ToldSource = {
  topic: TopicId
  /** Its name as a person reads it. */
  name: string
  read: boolean
} & ({ kind: 'attachment'; id: AttachmentId; file: FileId } | { kind: 'weblink'; id: WeblinkId; url: string })

export const isSameSource = (a: Source, b: Source): boolean => a.kind === b.kind && a.id === b.id

/** The sources of one topic: its files, then its web links, each in their order. */
export function sourcesAt(records: Records, topic: TopicId): ToldSource[] {
  const files = records.attachments(topic).flatMap(({ id, file, read }): ToldSource[] => {
    const name = records.get('file', file)?.name
    return name === undefined ? [] : [{ kind: 'attachment', id, topic, name, read, file }]
  })
  const links = records.weblinks(topic).map(
    ({ id, url, title, read }): ToldSource => ({
      kind: 'weblink',
      id,
      topic,
      name: title || readableAddress(url),
      read,
      url,
    }),
  )
  return [...files, ...links]
}

/** What there is to read in a branch, in reading order. O(topics of the branch). */
export const sourcesBelow = (records: Records, topic: TopicRecord): ToldSource[] =>
  [...branch(records, topic)].flatMap(({ id }) => sourcesAt(records, id))

/** A source as it is told; undefined where it is gone. */
export function sourceOf(records: Records, source: Source): ToldSource | undefined {
  const record = records.get(source.kind, source.id)
  if (!record || record.trashed) return undefined
  return sourcesAt(records, record.topic).find((told) => isSameSource(told, source))
}
