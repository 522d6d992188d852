import type { Situation } from '../acts/act'
import type { CollectionSession } from '../sync/collection-session'
import { useWorkspace } from './workspace-store'

/** The situation of a pane as it is now: for handlers, which run after what they were made from has changed. */
export function situationOf(session: CollectionSession, index: number): Situation {
  const pane = useWorkspace.getState().panes[index]!
  const topics = pane.selected.flatMap((id) => session.records.get('topic', id) ?? [])
  return { session, pane, index, topics }
}
