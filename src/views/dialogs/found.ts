import { z } from 'zod'
import { EnclosureId, MapId, TopicId } from '../../core/records/ids'
import type { Section } from '../workspace/workspace-store'

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

/** The section of the topic sheet in which what lies behind a topic is seen. */
export const SECTION_OF: Record<FoundBehind['kind'], Section> = {
  note: 'note',
  comment: 'comments',
  weblink: 'links',
  file: 'files',
  'file text': 'files',
}

/** Where what was found is seen: on its map, with the sheet open at what lies behind its topic, and a file at its page. */
export function foundAddress(
  collection: string,
  found: { kind: string; id: string; map: string | null; topic: string | null; page: number | null },
): string {
  const { kind, id, map, topic, page } = found
  const section = kind in SECTION_OF ? SECTION_OF[kind as FoundBehind['kind']] : null
  const asked = new URLSearchParams({ ...(topic ? { topic } : {}), ...(section ? { section } : {}) })
  if (section === 'files') asked.set('read', id)
  if (page) asked.set('page', String(page))
  return `/c/${collection}/m/${map}${asked.size > 0 ? `?${asked}` : ''}`
}
