import { create } from 'zustand'
import type { Source } from '../../core/network/sources'
import type { TopicId } from '../../core/records/ids'
import type { CollectionSession } from '../sync/collection-session'
import { useWorkspace } from '../workspace/workspace-store'

/** What is selected of a source. */
interface Passage {
  source: Source
  page: number | null
  text: string
}

/** Where the passage that was taken over last went. */
export interface Taken {
  words: string
  topic: TopicId
  becomes: 'topic' | 'note'
}

export const usePassage = create<{ passage: Passage | null; taken: Taken | null }>(() => ({
  passage: null,
  taken: null,
}))

/** Sets what is selected now. What was taken before is told until then. */
export function selectPassage(passage: Passage | null): void {
  usePassage.setState(passage ? { passage, taken: null } : { passage })
}

/** A passage on its way from the source to the map. */
export const PASSAGE_TYPE = 'application/x-folvet-passage'

/** The topic that takes a passage: the one that is selected, else the one on which the source hangs. */
export function takerOf(session: CollectionSession, source: Source): TopicId | null {
  const { panes, active } = useWorkspace.getState()
  const selected = panes[active]?.selected.at(-1)
  return selected ?? session.records.get(source.kind, source.id)?.topic ?? null
}
