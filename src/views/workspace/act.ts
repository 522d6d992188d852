import { isRoot } from '../../core/records/place'
import type { TopicRecord } from '../../core/records/topic'
import type { CollectionSession } from '../sync/collection-session'
import type { Pane } from './workspace-store'

/** What an act works on: the pane that has the keyboard and the topics selected in it. */
export interface Situation {
  session: CollectionSession
  pane: Pane
  index: number
  topics: readonly TopicRecord[]
}

/** Something that can be done to the selected topics: an entry of the topic menu, and a key. */
export interface Act {
  id: string
  name(situation: Situation): string
  /** As in `KeyboardEvent.key`, with modifiers in the order Ctrl, Alt, Shift. Ctrl is Command on a Mac. */
  keys: readonly string[]
  when(situation: Situation): boolean
  act(situation: Situation): void
  /** Told when one of its keys is pressed while it cannot be done. */
  otherwise?(situation: Situation): string | null
  group: 'topic' | 'mark' | 'move' | 'shape' | 'map' | 'view'
  /** Entries that belong together open from one entry of the menu. */
  submenu?: string
}

export const onlySelected = ({ topics }: Situation): TopicRecord | null => (topics.length === 1 ? topics[0]! : null)
export const editable = ({ session, topics }: Situation) => session.mayEdit && topics.length > 0
export const notRoot = (situation: Situation) =>
  editable(situation) && situation.topics.every((topic) => !isRoot(topic))
export const plainly = (name: string) => () => name
