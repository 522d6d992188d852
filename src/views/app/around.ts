import { useDebouncedValue } from '@mantine/hooks'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useCallback } from 'react'
import { z } from 'zod'
import { MapId, TopicId } from '../../core/records/ids'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useSessionHandle } from '../sync/use-session'
import { ask } from './api'

const Standing = z.object({ id: TopicId, text: z.string(), map: MapId, mapTitle: z.string() })
export type Standing = z.infer<typeof Standing>

const Around = z.object({
  topic: Standing,
  linkedFrom: z.array(Standing),
  carriedBy: z.array(Standing),
  sharing: z.array(Standing.extend({ link: z.string() })),
})
type Around = z.infer<typeof Around>

/** What a topic anywhere in the collection has to do with others; see server/around-topic. */
export const askAround = (collection: string, topic: string): Promise<Around> =>
  ask(Around, `/api/collections/${collection}/topics/${topic}/around`)

/** So long a topic is selected before it is asked what is around it, and so long after a change, in ms. */
const CALM_MS = 400

const heard = ({ changesHeard }: CollectionSession) => changesHeard

/** What a topic has to do with others, asked for anew after changes; null until that is known. */
export function useAround(topic: TopicId, isWanted = true): Around | null {
  const { id } = useSessionHandle()
  const changes = useCalmPart(useCallback(heard, []))
  const [settled] = useDebouncedValue(`${topic} ${changes}`, CALM_MS)
  const { data } = useQuery({
    queryKey: ['around', id, settled],
    queryFn: () => askAround(id, topic),
    enabled: isWanted && settled.startsWith(topic),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 30_000,
  })
  return data?.topic.id === topic ? data : null
}
