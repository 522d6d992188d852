import { isRoot, parentOf } from '../../core/records/place'
import type { TopicRecord } from '../../core/records/topic'
import type { CollectionSession } from '../sync/collection-session'
import { type Group, type Pane, workspace } from '../workspace/workspace-store'

/** What an act works on: the pane that has the keyboard and the topics selected in it. */
export interface Situation {
  session: CollectionSession
  pane: Pane
  index: number
  topics: readonly TopicRecord[]
}

export const GROUP_NAMES: Record<Group | 'view', string> = {
  gather: 'Gather',
  shape: 'Shape',
  enrich: 'Enrich',
  dress: 'Dress',
  network: 'Network',
  view: 'View',
}

/** Why something cannot be done, in a sentence for the person; null where nothing speaks against it. */
export type Condition = (situation: Situation) => string | null

/** Something that can be done: a row of a panel, an entry of the topic's menu and of what is found, a key. */
export interface Act {
  id: string
  /** Those of the strip below the map; what only alters what is seen stands in none of these. */
  group: Group | 'view'
  /** The heading below which it stands in the panel of its group. */
  section: string
  name(situation: Situation): string
  /** As in `KeyboardEvent.key`, with modifiers in the order Ctrl, Alt, Shift. Ctrl is Command on a Mac. */
  keys: readonly string[]
  /** The drawing of its effect. */
  drawing: string | null
  whyNot: Condition
  act(situation: Situation): void
}

/** An act as it is written down: what is left out is a name that is always the same, no key, no drawing, no condition. */
type Written = Pick<Act, 'id' | 'act'> & { name: string | Act['name'] } & Partial<Pick<Act, 'keys' | 'drawing'>> & {
    when?: readonly Condition[]
  }

/** Acts of a group below one heading. */
export const acts = (group: Act['group'], section: string, written: readonly Written[]): Act[] =>
  written.map(({ name, keys = [], drawing = null, when = [], ...rest }) => ({
    ...rest,
    group,
    section,
    keys,
    drawing,
    name: typeof name === 'string' ? () => name : name,
    whyNot: (situation) => {
      for (const condition of when) {
        const reason = condition(situation)
        if (reason !== null) return reason
      }
      return null
    },
  }))

// ---- What must be so ---------------------------------------------------------------------------------------------

/** A condition that is met or not, and the sentence where it is not. */
export const unless =
  (isMet: (situation: Situation) => boolean, reason: string): Condition =>
  (situation) =>
    isMet(situation) ? null : reason

export const mayEdit = unless(({ session }) => session.mayEdit, 'You may read this map, not change it.')
export const some = unless(({ topics }) => topics.length > 0, 'Select a topic first.')
export const one: Condition = ({ topics }) =>
  topics.length === 1 ? null : topics.length === 0 ? 'Select a topic first.' : 'Select one topic only.'
export const several = unless(({ topics }) => topics.length > 1, 'Select two topics or more.')
export const noRoot = unless(
  ({ topics }) => topics.every((topic) => !isRoot(topic)),
  'A map keeps its root topic. To remove it, put the whole map into the trash.',
)
export const onRoot = unless(({ topics }) => topics.every(isRoot), 'This is about the whole map: select its root.')
export const notOnRoot = unless(
  ({ topics }) => topics.every((topic) => !isRoot(topic)),
  'This is not for a root topic.',
)
export const hanging = unless(
  ({ topics }) => topics.every((topic) => parentOf(topic) !== null),
  'It hangs on no other topic.',
)
export const withBelow = unless(
  ({ session, topics }) => topics.some((topic) => session.records.children(topic.id).length > 0),
  'Nothing hangs below it.',
)
export const onMap = unless(({ pane }) => pane.face === 'map', 'This is seen on the map: choose Map at the top.')

/** The selected topic, for acts that come after `one`. */
export const theTopic = ({ topics }: Situation): TopicRecord => topics[0]!
export const idsOf = ({ topics }: Situation) => topics.map(({ id }) => id)

/** Runs a command and selects what it made. */
export function run({ session, index }: Situation, command: Parameters<CollectionSession['run']>[0]): void {
  const select = session.run(command)
  if (select && select.length > 0) workspace.select(index, select)
}
