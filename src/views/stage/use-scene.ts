import { useMemo } from 'react'
import { MapLayouter } from '../../core/layout/map-layout'
import { type Backdrop, backdrop } from '../../core/scene/backdrop'
import { buildScene, type Scene } from '../../core/scene/scene'
import { isEmpty, keptBy, matches } from '../../core/tree/filter'
import { topicsInOrder } from '../../core/tree/walk'
import { useFonts } from '../app/late-parts'
import type { CollectionSession } from '../sync/collection-session'
import type { Pane } from '../workspace/workspace-store'

interface Shown {
  scene: Scene
  behind: Backdrop
  /** Topics left out by the filter, where they stay in view; null without a filter. */
  faded: ReadonlySet<string> | null
}

/** What a pane shows of its map: laid out anew with every change, as far as the change reaches. */
export function useScene(session: CollectionSession, { map, only, filter }: Pane): Shown {
  const version = session.sceneVersion
  const fonts = useFonts()
  const context = useMemo(() => ({ fonts, countTopics: session.countTopics }), [fonts, session])
  const active = filter && !isEmpty(filter) ? filter : null
  const alone = active?.alone ? active : null
  const aloneVersion = alone ? version : ''
  // biome-ignore lint/correctness/useExhaustiveDependencies: what the filter keeps is looked up anew with every change.
  const layouter = useMemo(() => {
    const kept = alone && keptBy(session.records, topicsInOrder(session.records, map), alone)
    return new MapLayouter(session.records, map, context, kept ? (topic) => kept.has(topic.id) : undefined)
  }, [session, map, context, alone, aloneVersion])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const scene = useMemo(
    () => buildScene(session.records, map, context, layouter, only),
    [session, version, map, only, context, layouter],
  )
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
