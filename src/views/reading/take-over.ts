import { takePassage } from '../../core/commands/take-passage'
import type { TopicId } from '../../core/records/ids'
import type { CollectionSession } from '../sync/collection-session'
import { awaitField } from '../workspace/awaited-field'
import { useWorkspace, workspace } from '../workspace/workspace-store'
import { type Taken, takerOf, usePassage } from './passage'

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
  if (becomes !== 'note') return
  awaitField('field')
  workspace.openSection('note')
}
