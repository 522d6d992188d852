import type { z } from 'zod'
import { attachmentKind } from './attachment'
import { collectionKind } from './collection'
import { commentKind } from './comment'
import { crosslinkKind } from './crosslink'
import { enclosureKind } from './enclosure'
import { fileKind } from './file'
import { folderKind } from './folder'
import type { KindDefinition, Reference } from './kind'
import { lookKind } from './look'
import { mapKind } from './map'
import { noteKind } from './note'
import { pageKind } from './page'
import { searchKind } from './search'
import { tagKind } from './tag'
import { templateKind } from './template'
import { topicKind } from './topic'
import { weblinkKind } from './weblink'

/**
 * Every kind of record that a change can touch, in an order in which records can be written so that most find what they
 * refer to. A new kind is a file beside these and a line here; its table is a migration and a file in `server/records`.
 */
const definitions = {
  collection: collectionKind,
  file: fileKind,
  note: noteKind,
  tag: tagKind,
  look: lookKind,
  template: templateKind,
  folder: folderKind,
  map: mapKind,
  topic: topicKind,
  crosslink: crosslinkKind,
  weblink: weblinkKind,
  attachment: attachmentKind,
  enclosure: enclosureKind,
  comment: commentKind,
  search: searchKind,
  page: pageKind,
} as const

export type RecordKind = keyof typeof definitions
export type RecordByKind = { [K in RecordKind]: z.infer<(typeof definitions)[K]['schema']> }
export type AnyRecord = RecordByKind[RecordKind]

export const kinds: Readonly<Record<RecordKind, KindDefinition>> = definitions
export const RECORD_KINDS = Object.keys(definitions) as readonly RecordKind[]

/** A reference of any kind, with the kind whose records have it. */
export interface KindReference {
  from: RecordKind
  reference: Reference
}

/** All references of all kinds that can lead to a kind. */
export const referencesTo = (kind: RecordKind): readonly KindReference[] => {
  let found = leadingTo.get(kind)
  if (!found)
    leadingTo.set(
      kind,
      (found = RECORD_KINDS.flatMap((from) =>
        kinds[from].references.filter(({ to }) => to === null || to === kind).map((reference) => ({ from, reference })),
      )),
    )
  return found
}
const leadingTo = new Map<RecordKind, readonly KindReference[]>()
