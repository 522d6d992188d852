import { useEffect, useMemo, useState } from 'react'
import { gatheredChildren } from '../../core/layout/gathered'
import { MapLayouter } from '../../core/layout/map-layout'
import { ownChildren } from '../../core/layout/occurrence'
import { unfoldedChildren } from '../../core/layout/unfolded'
import type { TopicRecord } from '../../core/records/topic'
import { type Backdrop, backdrop } from '../../core/scene/backdrop'
import { type Scene, SceneMaker } from '../../core/scene/scene'
import { isEmpty, keptBy, matches } from '../../core/tree/filter'
import { topicsInOrder } from '../../core/tree/walk'
import { useFonts } from '../app/late-parts'
import { calendarHere } from '../app/when'
import type { CollectionSession } from '../sync/collection-session'
import type { Pane } from '../workspace/workspace-store'
import { useGathered } from './use-gathered'

interface Shown {
  scene: Scene
  behind: Backdrop
  /** Topics left out by the filter, where they stay in view; null without a filter. */
  faded: ReadonlySet<string> | null
}

/** Tiles of free space that are looked at for lines with each change, some 10 ms, and for the rest of them while nothing changes. */
const WITH_A_CHANGE = 10_000
const WHEN_AT_REST = 60_000
const AT_REST_MS = 200

/** What a pane shows of its map: laid out anew with every change, as far as the change reaches. */
export function useScene(session: CollectionSession, { map, only, filter, unfolded, selected }: Pane): Shown {
  const version = session.sceneVersion
  const gathered = useGathered(session, map, selected)
  const fonts = useFonts()
  const context = useMemo(() => ({ fonts, countTopics: session.countTopics }), [fonts, session])
  const calendar = calendarHere()
  const active = filter && !isEmpty(filter) ? filter : null
  const alone = active?.alone ? active : null
  const aloneVersion = alone ? version : ''
  // biome-ignore lint/correctness/useExhaustiveDependencies: what the filter keeps is looked up anew with every change.
  const maker = useMemo(() => {
    const kept = alone && keptBy(session.records, topicsInOrder(session.records, map), alone)
    const keeps = kept ? (topic: TopicRecord) => kept.has(topic.id) : undefined
    const inPlace = unfolded.length > 0 ? unfoldedChildren(session.records, new Set(unfolded)) : undefined
    const shown = gathered
      ? gatheredChildren(session.records, gathered, inPlace ?? ownChildren(session.records))
      : inPlace
    return new SceneMaker(session.records, context, new MapLayouter(session.records, map, context, keeps, shown))
  }, [session, map, context, alone, aloneVersion, unfolded, gathered])
  const [settling, setSettling] = useState({ version, round: 0 })
  const scene = useMemo(
    () => maker.make(only, calendar, { tiles: settling.version === version ? WHEN_AT_REST : WITH_A_CHANGE }),
    [version, only, maker, calendar, settling],
  )
  useEffect(() => {
    if (scene.isSettled) return
    const timer = setTimeout(() => setSettling(({ round }) => ({ version, round: round + 1 })), AT_REST_MS)
    return () => clearTimeout(timer)
  }, [scene, version])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const behind = useMemo(() => backdrop(session.records, map, session.pictureAddress), [session, version, map])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const faded = useMemo(() => {
    if (!active) return null
    const out = scene.layout.boxes.filter(({ topic }) => !matches(session.records, topic, active))
    return new Set(out.map(({ topic }) => topic.id))
  }, [active, scene, session, version])
  return { scene, behind, faded }
}
