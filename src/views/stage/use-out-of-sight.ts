import { useEffect, useRef } from 'react'
import { named } from '../../core/commands/command'
import { foldTopics } from '../../core/commands/fold-topics'
import type { MapLayout } from '../../core/layout/boxes'
import { TopicId } from '../../core/records/ids'
import { ancestors } from '../../core/tree/walk'
import type { CollectionSession } from '../sync/collection-session'
import { tellHappened } from '../workspace/happened'
import { type Pane, workspace } from '../workspace/workspace-store'

/**
 * What should be shown and is not seen is told. For what is folded away the topic below which it lies is shown and selected in its
 * place, with the way to unfold it, as nothing is unfolded by looking; for what the filter leaves out, the way without it. What lies
 * outside of the branch that is shown alone is shown on the whole map.
 */
export function useOutOfSight(session: CollectionSession, pane: Pane, index: number, layout: MapLayout): void {
  const told = useRef(0)
  useEffect(() => {
    const { show, map, only, filter } = pane
    if (!show || told.current === show.request || layout.boxes.length === 0) return
    told.current = show.request
    const id = TopicId.safeParse(show.what).data
    const topic = id && session.records.get('topic', id)
    if (!topic || topic.place.map !== map || layout.byKey.of(topic.id)) return
    const above = [...ancestors(session.records, topic)]
    if (only && only !== topic.id && !above.some((one) => one.id === only)) {
      // Who goes to what lies outside of the branch that is shown alone sees the whole map again.
      workspace.showOnly(index, null)
      workspace.show(index, topic.id)
      return
    }
    if (filter?.alone) {
      const without = () => {
        workspace.filter(index, null)
        workspace.show(index, topic.id)
      }
      tellHappened(`${named(topic.text)} is left out by the filter.`, [{ name: 'Without the filter', go: without }])
      return
    }
    const seen = above.find((one) => layout.byKey.of(one.id))
    if (!seen) return
    workspace.select(index, [seen.id])
    workspace.show(index, seen.id)
    const unfold = () => {
      const topics = above.flatMap((one) => (one.folded ? one.id : []))
      session.run((records, newIds) => foldTopics(records, { topics, folded: false }, newIds))
      workspace.select(index, [topic.id])
      workspace.show(index, topic.id)
    }
    tellHappened(
      `${named(topic.text)} is folded away below ${named(seen.text)}.`,
      session.mayEditMap(map) ? [{ name: 'Unfold', go: unfold }] : [],
    )
  }, [session, pane, index, layout])
}
