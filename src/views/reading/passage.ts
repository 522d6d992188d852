import { create } from 'zustand'
import { takePassage } from '../../core/commands/sources'
import type { Source } from '../../core/network/sources'
import type { TopicId } from '../../core/records/ids'
import type { CollectionSession } from '../sync/collection-session'
import { useWorkspace, workspace } from '../workspace/workspace-store'

/** What is selected of a source. */
interface Passage {
  source: Source
  page: number | null
  text: string
}

/** Where the passage that was taken over last went. */
interface Taken {
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

/** Takes the selected passage over, below a topic or into its note, and tells where it went. */
export function takeOverPassage(session: CollectionSession, becomes: 'topic' | 'note', onto?: TopicId): void {
  const { passage } = usePassage.getState()
  const at = onto ?? (passage && takerOf(session, passage.source))
  if (!passage || !at) return
  const made = session.run((records, newIds) => takePassage(records, { ...passage, at, becomes }, newIds))
  if (!made) return
  const [topic = at] = made
  const name = session.records.get('topic', at)?.text.slice(0, 60) || 'Untitled'
  const words = becomes === 'topic' ? `Taken as a topic below ${name}.` : `Taken into the note of ${name}.`
  usePassage.setState({ passage: null, taken: { words, topic, becomes } })
  document.getSelection()?.removeAllRanges()
}

/** Shows what was taken over, on the map or in its note. */
export function showTaken({ topic, becomes }: Taken): void {
  const { active } = useWorkspace.getState()
  workspace.select(active, [topic])
  workspace.show(active, topic)
  if (becomes === 'note') workspace.openSection('note')
}
