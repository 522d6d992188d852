import { useDeferredValue, useEffect, useMemo, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { Refusal } from '../../core/changes/problem'
import { crowdingOf } from '../../core/crowding/crowding'
import { proposeSplit, type SplitEffect, splitEffect } from '../../core/crowding/propose-split'
import { figuresOf, keyOfPart, type ReviewRow, rowsOfParts, topicsOfPart } from '../../core/crowding/split-review'
import type { LayoutContext } from '../../core/layout/boxes'
import type { MapId } from '../../core/records/ids'
import { useFonts } from '../app/late-parts'
import type { CollectionSession } from '../sync/collection-session'

const NEW_IDS = { newId: uuid }

/** The proposals for a map, and what they would make of it; null while they are being computed. */
export function useReview(session: CollectionSession, map: MapId) {
  const { records, sceneVersion: version } = session
  const fonts = useFonts()
  const context = useMemo((): LayoutContext => ({ fonts, countTopics: session.countTopics }), [fonts, session])
  const [rows, setRows] = useState<readonly ReviewRow[] | null>(null)
  useEffect(() => {
    // After the first picture of the screen, which says what is being done.
    const timer = setTimeout(() => setRows(rowsOfParts(proposeSplit(records, map, context, NEW_IDS))))
    return () => clearTimeout(timer)
  }, [records, map, context])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const now = useMemo(() => {
    const effect = splitEffect(records, map, [], context, NEW_IDS)
    return { whole: effect.maps[0]!, crowding: crowdingOf(records, map, context) }
  }, [records, map, context, version])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const here = useMemo(() => (rows ?? []).filter(({ part }) => isThere(session, part)), [rows, session, version])
  const shown = useDeferredValue(here)
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const after = useMemo((): SplitEffect | null => {
    const parts = shown.filter(({ isTaken }) => isTaken).map(({ part }) => part)
    try {
      return splitEffect(records, map, parts, context, NEW_IDS)
    } catch (error) {
      if (error instanceof Refusal) return null
      throw error
    }
  }, [records, map, context, shown, version])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const figures = useMemo(
    () => new Map(shown.map(({ part }) => [keyOfPart(part), figuresOf(records, part, now.whole.layout)])),
    [records, shown, now, version],
  )
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const partOf = useMemo(() => {
    const numbers = new Map<string, number>()
    // Of parts within parts, a topic belongs to the smallest.
    const parts = shown.flatMap(({ part, isTaken }, i) =>
      isTaken ? [{ topics: topicsOfPart(records, part), number: i + 1 }] : [],
    )
    for (const { topics, number } of parts.sort((a, b) => b.topics.length - a.topics.length))
      for (const { id } of topics) numbers.set(id, number)
    return (topic: string) => numbers.get(topic)
  }, [records, shown, version])
  const taken = useMemo(() => shown.flatMap((row, i) => (row.isTaken ? { ...row, number: i + 1 } : [])), [shown])
  const marksBefore = useMemo(
    () => new Map<string, number>(taken.map(({ part, number }) => ['row' in part ? part.row[0]! : part.topic, number])),
    [taken],
  )
  const marksAfter = useMemo(
    () => new Map<string, number>(after?.maps.slice(1).map(({ doorway }, i) => [doorway!, taken[i]!.number])),
    [after, taken],
  )
  return { rows: here, isReady: rows !== null, setRows, now, after, figures, partOf, taken, marksBefore, marksAfter }
}

function isThere({ records }: CollectionSession, part: ReviewRow['part']): boolean {
  const ids = 'row' in part ? part.row : [part.topic]
  return ids.every((id) => {
    const topic = records.get('topic', id)
    return topic && !topic.trashed && ('row' in part || !topic.opensMap)
  })
}
