import { z } from 'zod'
import { EnclosureId, MapId, TopicId } from '../../core/records/ids'

/** What finding answers. */
export const FoundRows = z.array(
  z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('topic'), id: TopicId, map: MapId, mapTitle: z.string(), text: z.string() }),
    z.object({ kind: z.literal('map'), id: MapId, map: MapId, mapTitle: z.string(), text: z.string() }),
    z.object({
      kind: z.literal('enclosure'),
      id: EnclosureId,
      topic: TopicId,
      map: MapId,
      mapTitle: z.string(),
      text: z.string(),
    }),
  ]),
)
export type Found = z.infer<typeof FoundRows>[number]

/** What finding answers of what lies behind topics. */
export const BehindRows = z.array(
  z.object({
    kind: z.enum(['note', 'comment', 'weblink', 'file', 'file text']),
    id: z.string(),
    topic: TopicId,
    topicText: z.string(),
    page: z.number().nullable(),
    map: MapId,
    mapTitle: z.string(),
    text: z.string(),
  }),
)
export type FoundBehind = z.infer<typeof BehindRows>[number]

/** The topic at which something that was found stands; null for a map as a whole. */
export const topicOfFound = (found: Found): TopicId | null =>
  found.kind === 'map' ? null : found.kind === 'topic' ? found.id : found.topic
