import { z } from 'zod'
import { CollectionId, MapId } from './ids'
import { defineKind, names } from './kind'
import { backgroundPicture, MapLook } from './look'
import { title } from './text'

/** All the maps, notes and files that belong together and are published together. */
export const CollectionRecord = z.strictObject({
  id: CollectionId,
  title,
  /** The map that the trail and the published site begin with. */
  homeMap: MapId.nullable(),
  /** What its maps look like where they have no look of their own. */
  look: MapLook.nullable(),
  trashed: z.boolean(),
})
export type CollectionRecord = z.infer<typeof CollectionRecord>

export const collectionKind = defineKind(CollectionRecord, {
  references: [names('homeMap', 'map', 'The home map', { whenGone: 'refused' }), backgroundPicture],
  joins: { look: 'properties' },
  seenEverywhere: true,
})
