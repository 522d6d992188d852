import { z } from 'zod'
import { FolderId, MapId, TopicId } from './ids'
import { defineKind, names } from './kind'
import { LayoutKind, NumberingScheme } from './layout'
import { backgroundPicture, MapLook } from './look'
import { title } from './text'

const coordinate = z.number().int().min(-1e6).max(1e6)

/** The upper left corner of a map in the collection atlas, in px from that of the home map. */
export const AtlasPlace = z.strictObject({ x: coordinate, y: coordinate })
export type AtlasPlace = z.infer<typeof AtlasPlace>

/** A tree of topics with one root topic; it may also hold loose branches. */
export const MapRecord = z.strictObject({
  id: MapId,
  title,
  /** The topic through which breadcrumbs and the site arrive here: the first doorway made to this map. */
  homeDoorway: TopicId.nullable(),
  layout: LayoutKind,
  /** Factor on the space between topics. */
  spacing: z.number().min(0.5).max(3),
  /** Null where topics carry no computed numbers. */
  numbering: NumberingScheme.nullable(),
  /** Null follows the collection. */
  look: MapLook.nullable(),
  /** The folder in which it lies, if any. */
  folder: FolderId.nullable().default(null),
  /** Where a person put it in the atlas; null where the atlas arranges it. */
  inAtlas: AtlasPlace.nullable().default(null),
  trashed: z.boolean(),
})
export type MapRecord = z.infer<typeof MapRecord>

export const mapKind = defineKind(MapRecord, {
  references: [
    names('homeDoorway', 'topic', 'The home doorway of this map', { whenGone: 'cleared' }),
    names('folder', 'folder', 'The folder of this map'),
    backgroundPicture,
  ],
  joins: { look: 'properties' },
})
