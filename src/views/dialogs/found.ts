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

/** The topic at which something that was found stands; null for a map as a whole. */
export const topicOfFound = (found: Found): TopicId | null =>
  found.kind === 'map' ? null : found.kind === 'topic' ? found.id : found.topic
