import { useQuery } from '@tanstack/react-query'
import { z } from 'zod'
import { MapId, TopicId } from '../../core/records/ids'
import type { TopicRecord } from '../../core/records/topic'
import { useSessionHandle } from '../sync/use-session'
import { ask } from './api'

const Standing = z.object({ id: TopicId, text: z.string(), map: MapId, mapTitle: z.string() })
export type Standing = z.infer<typeof Standing>

const Around = z.object({
  topic: Standing,
  linkedFrom: z.array(Standing),
  carriedBy: z.array(Standing),
  sharing: z.array(Standing.extend({ link: z.string() })),
  /** In which calendars elsewhere it is; whether somebody has to choose about it there. */
  calendars: z.array(z.object({ calendar: z.string(), name: z.string(), isOpen: z.boolean() })),
})
type Around = z.infer<typeof Around>

/** What a topic anywhere in the collection has to do with others; see server/around-topic. */
export const askAround = (collection: string, topic: string): Promise<Around> =>
  ask(Around, `/api/collections/${collection}/topics/${topic}/around`)

/** Stands for what is not known yet. */
const NOTHING = { linkedFrom: [], carriedBy: [], sharing: [], calendars: [] } as unknown as Around

/** So long a topic is selected before it is asked what is around it, in ms. */
const CALM_MS = 400

/**
 * What a topic has to do with others, as it was when it was selected, or got another note; null until that is known. It is not asked for
 * with every change in the collection: nothing is drawn anew for what happens elsewhere.
 */
export function useAround({ id: topic, note }: TopicRecord): Around | null {
  const session = useSessionHandle()
  const { id } = session
  const { data } = useQuery({
    queryKey: ['around', id, topic, note],
    queryFn: async ({ signal }) => {
      await new Promise((resolve) => setTimeout(resolve, CALM_MS))
      signal.throwIfAborted()
      // What was just made here is not known there before it is saved.
      await session.whenSaved()
      // Nor is what is just being begun, or was taken away meanwhile.
      const held = session.records.get('topic', topic)
      return held && !held.trashed && !session.isComposing(topic) ? askAround(id, topic) : NOTHING
    },
    // Most topics have to do with no others: then nothing is drawn anew.
    select: (around) =>
      around.linkedFrom.length + around.carriedBy.length + around.sharing.length + around.calendars.length > 0
        ? around
        : null,
    placeholderData: NOTHING,
    retry: false,
    staleTime: 0,
    gcTime: 30_000,
    refetchOnWindowFocus: false,
  })
  return data?.topic.id === topic ? data : null
}
