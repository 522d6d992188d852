import { useDebouncedValue } from '@mantine/hooks'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { z } from 'zod'
import { MapId, TopicId } from '../../core/records/ids'
import { useSessionHandle } from '../sync/use-session'
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

/** What a topic has to do with others, asked for anew after changes; null until that is known. Nothing is drawn anew while it stays the same. */
export function useAround(topic: TopicId): Around | null {
  const session = useSessionHandle()
  const queries = useQueryClient()
  const { id } = session
  const [settled] = useDebouncedValue(topic, CALM_MS)
  const { data } = useQuery({
    queryKey: ['around', id, settled],
    queryFn: () => askAround(id, settled),
    retry: false,
    staleTime: 0,
    gcTime: 30_000,
  })
  useEffect(() => {
    let heard = session.changesHeard
    let timer: ReturnType<typeof setTimeout> | undefined
    const stop = session.subscribe(() => {
      if (session.changesHeard === heard) return
      heard = session.changesHeard
      clearTimeout(timer)
      timer = setTimeout(() => void queries.invalidateQueries({ queryKey: ['around', id] }), CALM_MS)
    })
    return () => {
      stop()
      clearTimeout(timer)
    }
  }, [session, queries, id])
  return data?.topic.id === topic ? data : null
}
