import { v7 as uuid } from 'uuid'
import { Refusal } from '../../core/changes/problem'
import type { IdSource } from '../../core/commands/command'
import { isRoot, parentOf } from '../../core/records/place'
import type { TopicRecord } from '../../core/records/topic'
import type { CollectionSession } from '../sync/collection-session'
import { type Aim, awaitField, awaitNothing } from '../workspace/awaited-field'
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

/**
 * Where an act leads the keyboard: it stays, a field is there in the same moment, or it is on its way to a field, to something
 * that is pressed, to another map, or to another page.
 */
export type Lead = 'stays' | 'writing' | Aim | 'page'

/** Something that can be done: a row of a panel, an entry of the topic's menu and of what is found, a key. */
export interface Act {
  id: string
  /** Those of the strip below the map; what only alters what is seen stands in none of these. */
  group: Group | 'view'
  /** The heading below which it stands in the panel of its group. */
  section: string
  name(situation: Situation): string
  /** Other words by which it is looked for. */
  finds: string
  /** As in `KeyboardEvent.key`, with modifiers in the order Ctrl, Alt, Shift. Ctrl is Command on a Mac. */
  keys: readonly string[]
  /** The drawing of its effect. */
  drawing: string | null
  whyNot: Condition
  leads(situation: Situation): Lead
  /** Does it; false where it came to nothing, and leads nowhere then. */
  act(situation: Situation): unknown
}

/** An act as it is written down: what is left out is a name that is always the same, no key, no drawing, no condition; it leads nowhere. */
type Written = Pick<Act, 'id' | 'act'> & { name: string | Act['name'] } & Partial<
    Pick<Act, 'keys' | 'drawing' | 'finds'>
  > & {
    when?: readonly Condition[]
    leads?: Lead | Act['leads']
  }

/** Acts of a group below one heading. */
export const acts = (group: Act['group'], section: string, written: readonly Written[]): Act[] =>
  written.map(({ name, finds = '', keys = [], drawing = null, when = [], leads = 'stays', ...rest }) => ({
    ...rest,
    leads: typeof leads === 'string' ? () => leads : leads,
    group,
    section,
    finds,
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

const TRIAL_IDS: IdSource = { newId: uuid }

/** That a command of core would not refuse: its sentence where it does. For commands that cost little. */
export const accepted =
  (commandFor: (situation: Situation) => Parameters<CollectionSession['run']>[0]): Condition =>
  (situation) => {
    try {
      commandFor(situation)(situation.session.records, TRIAL_IDS)
      return null
    } catch (error) {
      if (error instanceof Refusal) return error.problem.message
      throw error
    }
  }

/** The selected topic, for acts that come after `one`. */
export const theTopic = ({ topics }: Situation): TopicRecord => topics[0]!
export const idsOf = ({ topics }: Situation) => topics.map(({ id }) => id)

/** Carries out an act that nothing speaks against. What is typed at once goes where it leads, though that may be still on its way. */
export function perform(act: Act, situation: Situation): void {
  const lead = act.leads(situation)
  if (lead === 'field' || lead === 'control' || lead === 'map') awaitField(lead)
  if (act.act(situation) === false) awaitNothing()
}

/** Runs a command and selects what it made. */
export function run({ session, index }: Situation, command: Parameters<CollectionSession['run']>[0]): void {
  const select = session.run(command)
  if (select && select.length > 0) workspace.select(index, select)
}
