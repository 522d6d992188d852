import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { AS_IT_IS, type Choice } from '../../core/matching/decisions'
import type { MapId, TopicId } from '../../core/records/ids'
import { ask, tellTrouble } from '../app/api'
import { useSession } from '../sync/use-session'
import { type Asked, changedSince, forgetMerge, keepMerge, keptMerge, PlanAnswer } from './merge-plan'

/** How long a plan may take, in ms: two maps of 5,000 topics take about a second. */
const PLAN_MS = 120_000

const fresh = (sources: readonly MapId[], title: string): Asked => ({
  sources,
  parts: [],
  way: 'combined',
  said: new Map(),
  choices: new Map(),
  ...AS_IT_IS,
  title,
})

/** A merge while it is planned: what is asked, the plan that follows, and what has become of one that was kept. */
export function useMerge(target: MapId, chosen: readonly MapId[] | undefined) {
  const session = useSession()
  const { id } = session
  const title = session.titleOf(target)
  const [kept, setKept] = useState(() => {
    const before = keptMerge(id, target)
    return before && (!chosen || chosen.join() === before.asked.sources.join()) ? before : null
  })
  const [asked, setAsked] = useState<Asked>(() => kept?.asked ?? fresh(chosen ?? [], title))
  const isOpen = session.isOpen(target)
  useEffect(() => {
    if (!isOpen) session.openMap(target).catch(tellTrouble)
  }, [isOpen, session, target])

  const { sources, parts, way, said, choices } = asked
  const body = { target, sources, parts, way, said: [...said], choices: [...choices] }
  const { data, error, isFetching, refetch } = useQuery({
    queryKey: ['merge-plan', id, body],
    queryFn: () => ask(PlanAnswer, `/api/collections/${id}/merge-plan`, { method: 'POST', body, limit: PLAN_MS }),
    enabled: sources.length > 0,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  })
  const answer = sources.length > 0 ? data : undefined
  useEffect(() => {
    if (sources.length > 0 && answer) keepMerge(id, target, asked, answer)
  }, [id, target, asked, answer, sources])

  const since = useMemo(() => (kept && answer ? changedSince(kept, answer) : null), [kept, answer])
  return {
    asked,
    answer,
    error,
    isPlanning: isFetching,
    planAgain: () => void refetch(),
    kept,
    since,
    change: (part: Partial<Asked>) => setAsked((before) => ({ ...before, ...part })),
    say: (source: TopicId, into: TopicId | null) =>
      setAsked((before) => ({ ...before, said: new Map(before.said).set(source, into) })),
    choose: (source: TopicId, choice: Choice) =>
      setAsked((before) => ({ ...before, choices: new Map(before.choices).set(source, choice) })),
    beginAnew: () => {
      forgetMerge(id, target)
      setKept(null)
      setAsked(fresh([], title))
    },
    forget: () => forgetMerge(id, target),
  }
}
