import { z } from 'zod'
import { AttachmentRecord } from './attachment'
import { CollectionRecord } from './collection'
import { CrosslinkRecord } from './crosslink'
import { EnclosureRecord } from './enclosure'
import { FileRecord } from './file'
import { MapId, PersonId, TopicId } from './ids'
import { LookRecord } from './look'
import { MapRecord } from './map'
import { NoteRecord } from './note'
import type { Records } from './records'
import { TagRecord } from './tag'
import { TopicRecord } from './topic'
import { WeblinkRecord } from './weblink'

export const Role = z.enum(['owner', 'editor', 'commenter', 'reader'])
export type Role = z.infer<typeof Role>

/** What is known of a topic on a map that is not held: enough to name the far end of a link. */
export const FarTopic = z.strictObject({ id: TopicId, map: MapId, text: z.string() })
export type FarTopic = z.infer<typeof FarTopic>

/** Everything that a browser holds of an open map, as it was at change `number`. */
export const MapSnapshot = z.strictObject({
  number: z.number().int(),
  map: MapRecord,
  topics: z.array(TopicRecord),
  notes: z.array(NoteRecord),
  crosslinks: z.array(CrosslinkRecord),
  weblinks: z.array(WeblinkRecord),
  attachments: z.array(AttachmentRecord),
  files: z.array(FileRecord),
  enclosures: z.array(EnclosureRecord),
  /** All tags and saved looks of the collection. */
  tags: z.array(TagRecord),
  looks: z.array(LookRecord),
  farTopics: z.array(FarTopic),
})
export type MapSnapshot = z.infer<typeof MapSnapshot>

/** One row for each map of a collection, whether it is open or not. */
export const MapDigest = z.strictObject({
  id: MapId,
  title: z.string(),
  trashed: z.boolean(),
  homeDoorway: TopicId.nullable(),
  /** The map on which the home doorway stands. */
  parentMap: MapId.nullable(),
  topics: z.number().int(),
  /** Maps that topics of this map open. */
  opens: z.array(MapId),
  /** Number of cross-links to each other map, in either direction. */
  linked: z.array(z.strictObject({ map: MapId, links: z.number().int() })),
})
export type MapDigest = z.infer<typeof MapDigest>

export const CollectionDigest = z.strictObject({
  number: z.number().int(),
  collection: CollectionRecord,
  role: Role,
  person: PersonId,
  maps: z.array(MapDigest),
})
export type CollectionDigest = z.infer<typeof CollectionDigest>

/** Puts what a snapshot holds into records. */
export function putSnapshot(records: Records, snapshot: MapSnapshot): void {
  records.put('map', snapshot.map)
  for (const file of snapshot.files) records.put('file', file)
  for (const tag of snapshot.tags) records.put('tag', tag)
  for (const look of snapshot.looks) records.put('look', look)
  for (const note of snapshot.notes) records.put('note', note)
  for (const topic of snapshot.topics) records.put('topic', topic)
  for (const link of snapshot.crosslinks) records.put('crosslink', link)
  for (const link of snapshot.weblinks) records.put('weblink', link)
  for (const attachment of snapshot.attachments) records.put('attachment', attachment)
  for (const enclosure of snapshot.enclosures) records.put('enclosure', enclosure)
}
