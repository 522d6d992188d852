import { z } from 'zod'
import { CollectionRecord } from './collection'
import { FolderRecord } from './folder'
import { FolderId, MapId, PersonId, TopicId } from './ids'
import { RECORD_KINDS, type RecordByKind, type RecordKind } from './kinds'
import { AtlasPlace } from './map'
import type { Records } from './records'

export const Role = z.enum(['owner', 'editor', 'commenter', 'reader'])
export type Role = z.infer<typeof Role>

/** What is known of a topic on a map that is not held: enough to name the far end of a link. */
export interface FarTopic {
  id: TopicId
  map: MapId
  text: string
}

/** Everything that a browser holds of an open map, as it was at change `number`. Our own server makes it. */
export interface MapSnapshot {
  number: number
  map: MapId
  /** The map, its topics, and what belongs to them or is shown at them; with it all tags and saved looks. */
  records: { [K in RecordKind]?: readonly RecordByKind[K][] }
  /** The topics at the far ends of links that are not among the records. */
  farTopics: readonly FarTopic[]
}

/** One row for each map of a collection, whether it is open or not. */
export const MapDigest = z.strictObject({
  id: MapId,
  title: z.string(),
  trashed: z.boolean(),
  folder: FolderId.nullable(),
  inAtlas: AtlasPlace.nullable(),
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
  /** The strongest role of whoever asks. */
  role: Role,
  /** Their role on each map where they differ; null where `role` holds in all of the collection. */
  roles: z.record(z.string(), Role).nullable(),
  person: PersonId,
  maps: z.array(MapDigest),
  /** Folders, for whoever may read all of the collection. */
  folders: z.array(FolderRecord),
})
export type CollectionDigest = z.infer<typeof CollectionDigest>

export const JobState = z.enum(['waiting', 'running', 'ending', 'done', 'failed', 'cancelled'])

/** Work that takes its time, as it is told to whoever may read the collection. */
export const ToldJob = z.strictObject({
  id: z.string(),
  person: PersonId,
  kind: z.string(),
  label: z.string(),
  state: JobState,
  /** How far it is, in steps of its own; a total of 0 where that is not known yet. */
  done: z.number().int(),
  total: z.number().int(),
  message: z.string(),
})
export type ToldJob = z.infer<typeof ToldJob>

/** Puts what a snapshot holds into records. */
export function putSnapshot(records: Records, snapshot: MapSnapshot): void {
  const putAll = <K extends RecordKind>(kind: K) => {
    for (const record of snapshot.records[kind] ?? []) records.put(kind, record)
  }
  for (const kind of RECORD_KINDS) putAll(kind)
}
