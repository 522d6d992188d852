import type { FileRecord } from '../records/file'
import type { FileId, MapId, TopicId } from '../records/ids'
import { type AnyRecord, type RecordKind, referencesTo } from '../records/kinds'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { isInTrash } from '../tree/walk'

/** Where a file is: hung on a topic, there as an earlier version, as its picture, behind a map, or in what belongs to the collection as a whole. */
export interface FileUse {
  how: 'file' | 'earlier' | 'picture' | 'background' | 'collection'
  topic: TopicId | null
  map: MapId | null
  /** Of the topic, or of the map. */
  text: string
  /** Whether it was read there; null where it is nothing to read. */
  read: boolean | null
}

export interface FileRow {
  id: FileId
  name: string
  type: string
  size: number
  uses: FileUse[]
  /** How many other files have the same content. */
  same: number
}

/**
 * Every file of a collection with where it is, by name; those that are nowhere only where `isAllOpen`, and of the others what stands on open
 * maps. Linear in files and what refers to them.
 */
export function fileLedger(records: Records, isOpen: (map: string) => boolean, isAllOpen: boolean): FileRow[] {
  const files = [...records.all('file')].filter(({ trashed }) => !trashed)
  const ofContent = new Map<string, number>()
  for (const { sha256 } of files) ofContent.set(sha256, (ofContent.get(sha256) ?? 0) + 1)
  return files
    .map((file): FileRow => {
      const { id, name, type, size, sha256 } = file
      const uses = usesOf(records, file).filter(({ map }) => (map ? isOpen(map) : isAllOpen))
      return { id, name, type, size, uses, same: isAllOpen ? ofContent.get(sha256)! - 1 : 0 }
    })
    .filter(({ uses }) => isAllOpen || uses.length > 0)
    .sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : a.id < b.id ? -1 : 1))
}

/** Where a file is, without what lies in the trash. */
export function usesOf(records: Records, { id }: Pick<FileRecord, 'id'>): FileUse[] {
  const uses: FileUse[] = []
  for (const { from, reference } of referencesTo('file'))
    for (const record of records.referring(from, reference, { kind: 'file', id })) {
      const use = placeIn(records, from, record, id)
      if (use) uses.push(use)
    }
  return uses
}

function placeIn(records: Records, kind: RecordKind, record: AnyRecord, file: FileId): FileUse | null {
  if (record.trashed) return null
  const at = (topic: TopicRecord | undefined, how: FileUse['how'], read: boolean | null = null) =>
    topic && !isInTrash(records, topic) ? { how, topic: topic.id, map: topic.place.map, text: topic.text, read } : null
  const attachment = kind === 'attachment' ? records.get('attachment', record.id) : undefined
  if (attachment) {
    const topic = records.get('topic', attachment.topic)
    return attachment.file === file ? at(topic, 'file', attachment.read) : at(topic, 'earlier')
  }
  if (kind === 'topic') return at(records.get('topic', record.id), 'picture')
  if (kind === 'map') {
    const map = records.get('map', record.id)
    return map ? { how: 'background', topic: null, map: map.id, text: map.title, read: null } : null
  }
  return { how: 'collection', topic: null, map: null, text: '', read: null }
}
