import { z } from 'zod'
import { CrosslinkId, MapId, TopicId } from './ids'
import { title } from './text'

/** How a cross-link shows on the map: as a line, as a quiet sign at both ends, or as a line while an end is selected. */
export const Drawn = z.enum(['line', 'quiet', 'selected'])
export type Drawn = z.infer<typeof Drawn>

/** A link from a topic to another topic or to a map, anywhere in the collection. Exactly one target is set. */
export const CrosslinkRecord = z
  .strictObject({
    id: CrosslinkId,
    from: TopicId,
    toTopic: TopicId.nullable(),
    toMap: MapId.nullable(),
    label: title,
    drawn: Drawn,
    trashed: z.boolean(),
  })
  .refine((link) => (link.toTopic === null) !== (link.toMap === null), 'A cross-link leads to one topic or one map.')
export type CrosslinkRecord = z.infer<typeof CrosslinkRecord>
