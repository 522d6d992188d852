import { z } from 'zod'
import { CollectionId, MapId } from './ids'
import { defineKind, names } from './kind'
import { backgroundPicture, MapLook } from './look'
import { title } from './text'

/** Between what the limits of a collection can be set. */
export const LIMITS = { topics: { least: 15, most: 500 }, px: { least: 4, most: 24 } } as const

/** All the maps, notes and files that belong together and are published together. */
export const CollectionRecord = z.strictObject({
  id: CollectionId,
  title,
  /** The map that the trail and the published site begin with. */
  homeMap: MapId.nullable(),
  /** What its maps look like where they have no look of their own. */
  look: MapLook.nullable(),
  /** From when on its maps are called crowded, where a person has set that; see `core/crowding/piece-cost.ts`. */
  limits: z
    .strictObject({
      /** Topics that a map has at most. */
      topics: z.number().int().min(LIMITS.topics.least).max(LIMITS.topics.most),
      /** How small its text becomes when it is fitted, in px. */
      px: z.number().min(LIMITS.px.least).max(LIMITS.px.most),
    })
    .nullable()
    .default(null),
  trashed: z.boolean(),
})
export type CollectionRecord = z.infer<typeof CollectionRecord>

export const collectionKind = defineKind(CollectionRecord, {
  references: [names('homeMap', 'map', 'The home map', { whenGone: 'refused' }), backgroundPicture],
  joins: { look: 'properties' },
  seenEverywhere: true,
})
