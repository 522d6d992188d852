import { useDebouncedValue } from '@mantine/hooks'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo } from 'react'
import { z } from 'zod'
import type { Gathered } from '../../core/layout/gathered'
import { type MapId, TopicId } from '../../core/records/ids'
import { TopicRecord } from '../../core/records/topic'
import { topicsInOrder } from '../../core/tree/walk'
import { ask, tellTrouble } from '../app/api'
import { today } from '../app/when'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart } from '../sync/use-session'

const Answer = z.object({
  lists: z.array(z.object({ list: TopicId, topics: z.array(TopicId), isMore: z.boolean() })),
  topics: z.array(TopicRecord),
})

/** After the last change, anywhere in the collection, it is asked again what the lists find, in ms. */
const AGAIN_AFTER_MS = 1_200

/** What the lists of a map ask for; empty where there are none. */
const askedOn = (session: CollectionSession, map: string): string => {
  let asked = ''
  for (const { id, gathers } of topicsInOrder(session.records, map))
    if (gathers) asked += `${id} ${JSON.stringify(gathers)}\n`
  return asked
}

/**
 * What the gathered lists of a map find, asked for anew a moment after each change; null where it has none. What is selected of it is
 * held from then on, with its map, so that it can be worked on as anywhere.
 */
export function useGathered(session: CollectionSession, map: MapId, selected: readonly TopicId[]): Gathered | null {
  const asked = useCalmPart(useCallback((now: CollectionSession) => askedOn(now, map), [map]))
  const changes = useCalmPart(useCallback((now: CollectionSession) => (asked === '' ? 0 : now.changesHeard), [asked]))
  const [settled] = useDebouncedValue(changes, AGAIN_AFTER_MS)
  const day = today()
  const { data } = useQuery({
    queryKey: ['gathered', session.id, map, asked, day, settled],
    queryFn: () => ask(Answer, `/api/collections/${session.id}/maps/${map}/gathered?today=${day}`),
    enabled: asked !== '',
    placeholderData: keepPreviousData,
    staleTime: 0,
    gcTime: 60_000,
  })
  useEffect(() => {
    if (asked === '' || !data) return
    for (const id of selected) {
      const found = session.records.get('topic', id) ? undefined : data.topics.find((topic) => topic.id === id)
      if (found && !session.isOpen(found.place.map)) session.openMap(found.place.map).catch(tellTrouble)
    }
  }, [selected, asked, data, session])
  return useMemo(() => (asked === '' || !data ? null : shownOf(session, data)), [session, asked, data])
}

/** Topics that are held are shown as they are held. */
function shownOf({ records }: CollectionSession, { lists, topics }: z.infer<typeof Answer>): Gathered {
  const byId = new Map(topics.map((topic) => [topic.id, topic]))
  const of = new Map(lists.map((found) => [found.list as string, found.topics]))
  return {
    of: ({ id }) =>
      (of.get(id) ?? []).flatMap((topic) => {
        const held = records.get('topic', topic)
        return held?.trashed ? [] : (held ?? byId.get(topic) ?? [])
      }),
    get stamp() {
      let stamp = 0
      for (const { id } of topics) if (records.get('topic', id)) stamp += records.stampOf(id)
      return stamp
    },
  }
}
