import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { z } from 'zod'
import { TopicId } from '../../core/records/ids'
import { bandsInOrder, sortingTable } from '../../core/sorting/bands'
import { MOST_SORTED } from '../../core/sorting/suggestions'
import { drawersOf } from '../../core/tree/to-place'
import { ask } from '../app/api'
import { useSession } from '../sync/use-session'
import type { Sortable } from '../workspace/workspace-store'

const Reason = { words: z.array(z.string()) }
const Answer = z.object({
  bands: z.array(z.object({ items: z.array(TopicId), ...Reason })),
  homes: z.array(z.object({ item: TopicId, band: TopicId, ...Reason })),
  headings: z.array(z.object({ bands: z.array(TopicId), ...Reason })),
})

/** Something that the words on the table suggest: a band of items, items for a band that is there, or bands under one heading. */
export type Suggestion = { key: string; words: string[] } & (
  | { kind: 'band'; topics: TopicId[] }
  | { kind: 'home'; topics: TopicId[]; band: TopicId }
  | { kind: 'heading'; topics: TopicId[] }
)

/** How long the table rests before it is asked again what could belong together, in ms. */
const REST_MS = 400

/** Bands that were looked at beyond this are not compared. */
const MOST_BANDS = 200

/** The sorting table of something, and what is suggested for it. */
export function useSorting(what: Sortable) {
  const session = useSession()
  const { records } = session
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set())
  const [refused, setRefused] = useState<ReadonlySet<string>>(new Set())
  const holders = 'drawer' in what ? drawersOf(records, what.drawer) : [{ id: what.branch }]
  const table = sortingTable(records, holders, ({ id }) => marked.has(id))
  const bands = [...bandsInOrder(table.bands)]
  const sent = {
    items: table.pool.slice(0, MOST_SORTED).map(({ id, text }) => ({ id, text })),
    bands: bands
      .slice(0, MOST_BANDS)
      .map(({ band: { topic, items } }) => ({ id: topic.id, text: topic.text, items: items.map(({ text }) => text) })),
  }
  const { data, isFetching } = useQuery({
    queryKey: ['bands', session.id, sent],
    queryFn: async ({ signal }) => {
      await new Promise((rest) => setTimeout(rest, REST_MS))
      signal.throwIfAborted()
      return ask(Answer, `/api/collections/${session.id}/bands`, { method: 'POST', body: sent })
    },
    enabled: session.mayEdit && sent.items.length + sent.bands.length > 1,
    placeholderData: (before) => before,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  })
  const suggestions = useMemo(() => (data ? listed(data).filter(({ key }) => !refused.has(key)) : []), [data, refused])
  const there = new Set<string>([...table.pool.map(({ id }) => id), ...bands.map(({ band }) => band.topic.id)])
  return {
    table,
    bands,
    holder: holders[0]?.id ?? null,
    suggestions: suggestions.filter(({ topics }) => topics.every((id) => there.has(id))),
    isLooking: isFetching,
    /** Calls a topic a band, also while nothing is in it. */
    mark: (topic: TopicId) => setMarked((before) => new Set([...before, topic])),
    unmark: (topic: TopicId) => setMarked((before) => new Set([...before].filter((id) => id !== topic))),
    refuse: (suggestion: Suggestion) => setRefused((before) => new Set([...before, suggestion.key])),
  }
}

function listed({ bands, homes, headings }: z.infer<typeof Answer>): Suggestion[] {
  const byBand = new Map<TopicId, { topics: TopicId[]; words: string[] }>()
  for (const { item, band, words } of homes) {
    const known = byBand.get(band)
    if (known) known.topics.push(item)
    else byBand.set(band, { topics: [item], words })
  }
  const all: Omit<Suggestion, 'key'>[] = [
    ...[...byBand].map(([band, { topics, words }]) => ({ kind: 'home' as const, topics, band, words })),
    ...bands.map(({ items, words }) => ({ kind: 'band' as const, topics: items, words })),
    ...headings.map(({ bands: topics, words }) => ({ kind: 'heading' as const, topics, words })),
  ]
  return all.map((each) => {
    const band = 'band' in each ? `${each.band}` : ''
    return { ...each, key: `${each.kind} ${band} ${[...each.topics].sort().join(' ')}` } as Suggestion
  })
}
