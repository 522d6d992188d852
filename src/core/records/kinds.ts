import { AttachmentRecord } from './attachment'
import { CollectionRecord } from './collection'
import { CrosslinkRecord } from './crosslink'
import { EnclosureRecord } from './enclosure'
import { FileRecord } from './file'
import { LookRecord } from './look'
import { MapRecord } from './map'
import { NoteRecord } from './note'
import { TagRecord } from './tag'
import { TemplateRecord } from './template'
import { TopicRecord } from './topic'
import { WeblinkRecord } from './weblink'

/** Every kind of record that a change can touch, with the schema that guards it. */
export const recordSchemas = {
  collection: CollectionRecord,
  map: MapRecord,
  topic: TopicRecord,
  note: NoteRecord,
  crosslink: CrosslinkRecord,
  weblink: WeblinkRecord,
  attachment: AttachmentRecord,
  file: FileRecord,
  enclosure: EnclosureRecord,
  tag: TagRecord,
  look: LookRecord,
  template: TemplateRecord,
} as const

export interface RecordByKind {
  collection: CollectionRecord
  map: MapRecord
  topic: TopicRecord
  note: NoteRecord
  crosslink: CrosslinkRecord
  weblink: WeblinkRecord
  attachment: AttachmentRecord
  file: FileRecord
  enclosure: EnclosureRecord
  tag: TagRecord
  look: LookRecord
  template: TemplateRecord
}
export type RecordKind = keyof RecordByKind
export type AnyRecord = RecordByKind[RecordKind]

/** Order in which records can be written so that each finds what it refers to. */
export const RECORD_KINDS = [
  'collection',
  'file',
  'note',
  'tag',
  'look',
  'template',
  'map',
  'topic',
  'crosslink',
  'weblink',
  'attachment',
  'enclosure',
] as const satisfies readonly RecordKind[]
