import { z } from 'zod'
import { MapId, TopicId } from './ids'
import { title } from './text'

/** A tree of topics with one root topic; it may also hold loose branches. */
export const MapRecord = z.strictObject({
  id: MapId,
  title,
  /** The topic through which breadcrumbs and the site arrive here: the first doorway made to this map. */
  homeDoorway: TopicId.nullable(),
  trashed: z.boolean(),
})
export type MapRecord = z.infer<typeof MapRecord>
