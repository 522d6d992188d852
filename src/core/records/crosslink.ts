import { z } from 'zod'
import { CrosslinkId, EnclosureId, MapId, TopicId } from './ids'
import { title } from './text'

/** How a cross-link shows on the map: as a line, as a quiet sign at both ends, or as a line while an end is selected. */
export const Drawn = z.enum(['line', 'quiet', 'selected'])
export type Drawn = z.infer<typeof Drawn>

/** A link from a topic to another topic, to an enclosure or to a map, anywhere in the collection. */
export const CrosslinkRecord = z
  .strictObject({
    id: CrosslinkId,
    from: TopicId,
    /** The far end, unless that is a map; for an enclosure a topic inside, which says where it stands. */
    toTopic: TopicId.nullable(),
    toMap: MapId.nullable(),
    toEnclosure: EnclosureId.nullable(),
    label: title,
    drawn: Drawn,
    trashed: z.boolean(),
  })
  .refine((link) => (link.toTopic === null) !== (link.toMap === null), 'A cross-link leads to one topic or one map.')
  .refine((link) => link.toEnclosure === null || link.toTopic !== null, 'An enclosure stands where its topics are.')
export type CrosslinkRecord = z.infer<typeof CrosslinkRecord>
