import { addLooseTopic } from '../../core/commands/add-loose-topic'
import { addTopic } from '../../core/commands/add-topic'
import { deleteTopics } from '../../core/commands/delete-topics'
import { evenOutSides, holdSides } from '../../core/commands/even-out-sides'
import { foldTopics } from '../../core/commands/fold-topics'
import { insertBetween } from '../../core/commands/insert-between'
import { saveTemplate } from '../../core/commands/save-template'
import { splitOff } from '../../core/commands/split-off'
import { type Step, stepTopic } from '../../core/commands/step-topic'
import type { TopicId } from '../../core/records/ids'
import { isRoot, parentOf, sideOf } from '../../core/records/place'
import type { TopicRecord } from '../../core/records/topic'
import { tell } from '../app/api'
import type { CollectionSession } from '../sync/collection-session'
import { type Act, editable, notRoot, onlySelected, plainly, type Situation } from './act'
import { MARK_ACTS } from './mark-acts'
import { SHAPE_ACTS } from './shape-acts'
import { LARGE_MAP, stageOf } from './shown-stages'
import { workspace } from './workspace-store'

function compose({ session, index }: Situation, command: Parameters<CollectionSession['compose']>[0]): void {
  const topic = session.compose(command)
  if (topic) workspace.edit(index, { topic, text: '' })
}

export function composeChild(situation: Situation, parent: TopicRecord): void {
  compose(situation, (records, newIds) => addTopic(records, { parent: parent.id, after: 'last', text: '' }, newIds))
}

/** After a topic; on a root a new first-level topic, on a loose head another one below it. */
export function composeSibling(situation: Situation, topic: TopicRecord): void {
  const parent = parentOf(topic)
  if (parent === null) composeChild(situation, topic)
  else compose(situation, (records, newIds) => addTopic(records, { parent, after: topic.id, text: '' }, newIds))
}

/** A topic between branches and the one on which they hang. */
export function composeAbove(situation: Situation, topics: readonly TopicId[]): void {
  compose(situation, (records, newIds) => insertBetween(records, { topics, text: '' }, newIds))
}

export function composeLoose(situation: Situation, x: number, y: number): void {
  compose(situation, (records, newIds) => addLooseTopic(records, { map: situation.pane.map, x, y, text: '' }, newIds))
}

function step(situation: Situation, direction: Step): void {
  const { session, index } = situation
  const topic = onlySelected(situation)
  if (!topic) return
  const select = session.run((records, newIds) => stepTopic(records, { topic: topic.id, step: direction }, newIds))
  if (select) workspace.show(index, topic.id)
}

const stepAct = (direction: Step, name: string, keys: string[]): Act => ({
  id: `move-${direction}`,
  name: plainly(name),
  keys,
  group: 'move',
  when: (situation) => notRoot(situation) && onlySelected(situation) !== null,
  act: (situation) => step(situation, direction),
})

export const ACTS: readonly Act[] = [
  {
    id: 'edit',
    name: plainly('Edit the text'),
    keys: ['F2'],
    group: 'topic',
    when: (situation) => editable(situation) && onlySelected(situation) !== null,
    act: (situation) => workspace.edit(situation.index, { topic: onlySelected(situation)!.id, text: null }),
  },
  {
    id: 'add-child',
    name: plainly('Add a child'),
    keys: ['Tab'],
    group: 'topic',
    when: (situation) => editable(situation) && onlySelected(situation) !== null,
    act: (situation) => composeChild(situation, onlySelected(situation)!),
  },
  {
    id: 'add-sibling',
    name: (situation) =>
      situation.topics[0] && !parentOf(situation.topics[0]) ? 'Add a first-level topic' : 'Add a sibling',
    keys: ['Enter'],
    group: 'topic',
    when: (situation) => editable(situation) && onlySelected(situation) !== null,
    act: (situation) => composeSibling(situation, onlySelected(situation)!),
  },
  {
    id: 'add-above',
    name: ({ topics }) => (topics.length > 1 ? 'Add a topic above them' : 'Add a topic above it'),
    keys: ['Shift+Enter'],
    group: 'topic',
    when: (situation) => notRoot(situation) && situation.topics.every((topic) => parentOf(topic) !== null),
    act: (situation) =>
      composeAbove(
        situation,
        situation.topics.map(({ id }) => id),
      ),
  },
  {
    id: 'open',
    name: plainly('Open the map behind it'),
    keys: ['Ctrl+Enter'],
    group: 'topic',
    when: (situation) => Boolean(onlySelected(situation)?.opensMap),
    act: (situation) => workspace.go(situation.index, onlySelected(situation)!.opensMap!, null),
  },
  {
    id: 'note',
    name: plainly('Write the note'),
    keys: ['Alt+n'],
    group: 'topic',
    when: (situation) => onlySelected(situation) !== null,
    act: () => workspace.openSection('note'),
  },
  {
    id: 'link',
    name: plainly('Cross-link with …'),
    keys: ['Alt+l'],
    group: 'topic',
    when: (situation) => editable(situation) && onlySelected(situation) !== null,
    act: (situation) => workspace.dialog({ kind: 'link', from: onlySelected(situation)!.id }),
  },
  {
    id: 'files',
    name: plainly('Attach files'),
    keys: [],
    group: 'topic',
    when: (situation) => editable(situation) && onlySelected(situation) !== null,
    act: () => workspace.openSection('files'),
  },
  {
    id: 'fold',
    name: ({ topics }) => (topics[0]?.folded ? 'Unfold' : 'Fold'),
    keys: [' '],
    group: 'topic',
    when: (situation) =>
      notRoot(situation) && situation.topics.some((topic) => situation.session.records.children(topic.id).length > 0),
    act: ({ session, topics }) => {
      session.run((records, newIds) =>
        foldTopics(records, { topics: topics.map(({ id }) => id), folded: !topics[0]!.folded }, newIds),
      )
    },
  },
  {
    id: 'delete',
    name: plainly('Delete'),
    keys: ['Delete', 'Backspace'],
    group: 'topic',
    when: notRoot,
    otherwise: (situation) =>
      editable(situation) ? 'A map keeps its root topic. To remove it, put the whole map into the trash.' : null,
    act: ({ session, topics, index }) => {
      const select = session.run((records, newIds) =>
        deleteTopics(records, { topics: topics.map(({ id }) => id) }, newIds),
      )
      if (select) workspace.select(index, select)
    },
  },
  stepAct('up', 'Move up', ['Alt+ArrowUp']),
  stepAct('down', 'Move down', ['Alt+ArrowDown']),
  stepAct('left', 'Move to the left', ['Alt+ArrowLeft']),
  stepAct('right', 'Move to the right', ['Alt+ArrowRight']),
  stepAct('out', 'Move out one level', ['Shift+Tab']),
  {
    id: 'pour',
    name: plainly('Pour ideas onto it'),
    keys: ['Alt+p'],
    group: 'topic',
    when: (situation) => editable(situation) && onlySelected(situation) !== null && situation.pane.face === 'map',
    act: (situation) => workspace.pour({ index: situation.index, topic: onlySelected(situation)!.id }),
  },
  {
    id: 'draft',
    name: plainly('Draft branches …'),
    keys: ['Alt+r'],
    group: 'topic',
    when: (situation) => editable(situation) && onlySelected(situation) !== null && situation.pane.face === 'map',
    act: (situation) => workspace.draft({ index: situation.index, topic: onlySelected(situation)!.id }),
  },
  {
    id: 'template',
    name: plainly('Insert a template …'),
    keys: [],
    group: 'topic',
    when: (situation) => editable(situation) && onlySelected(situation) !== null,
    act: (situation) => workspace.dialog({ kind: 'template', topic: onlySelected(situation)!.id }),
  },
  {
    id: 'keep-template',
    name: plainly('Keep as a template …'),
    keys: [],
    group: 'map',
    when: (situation) =>
      editable(situation) &&
      onlySelected(situation) !== null &&
      situation.session.records.children(onlySelected(situation)!.id).length > 0,
    act: (situation) => {
      const { id, text } = onlySelected(situation)!
      workspace.dialog({
        kind: 'ask',
        title: 'Keep what is below as a template',
        label: 'Name of the template',
        value: text.slice(0, 80),
        act: 'Keep it',
        take: (name) => situation.session.run((records, newIds) => saveTemplate(records, { topic: id, name }, newIds)),
      })
    },
  },
  ...MARK_ACTS,
  ...SHAPE_ACTS,
  {
    id: 'split-off',
    name: plainly('Split off into a child map'),
    keys: ['Alt+d'],
    group: 'map',
    when: (situation) => {
      const topic = onlySelected(situation)
      return (
        notRoot(situation) &&
        topic !== null &&
        !topic.opensMap &&
        situation.session.records.children(topic.id).length > 0
      )
    },
    act: (situation) => {
      situation.session.run((records, newIds) => splitOff(records, { topic: onlySelected(situation)!.id }, newIds))
    },
  },
  {
    id: 'bring-back',
    name: plainly('Bring the child map back'),
    keys: [],
    group: 'map',
    when: (situation) => notRoot(situation) && Boolean(onlySelected(situation)?.opensMap),
    act: (situation) => void situation.session.command('bring-back', { topic: onlySelected(situation)!.id }),
  },
  {
    id: 'hold-side',
    name: ({ topics }) => (topics[0]?.held ? 'Let it change sides' : 'Hold it to this side'),
    keys: [],
    group: 'move',
    when: (situation) =>
      notRoot(situation) &&
      situation.topics.every((topic) => {
        const parent = situation.session.records.get('topic', parentOf(topic))
        return parent !== undefined && isRoot(parent) && sideOf(topic) !== null
      }),
    act: ({ session, topics }) => {
      const held = !topics[0]!.held
      session.run((records, newIds) => holdSides(records, { topics: topics.map(({ id }) => id), held }, newIds))
    },
  },
  {
    id: 'even-out',
    name: plainly('Even out the sides'),
    keys: [],
    group: 'map',
    when: (situation) => editable(situation) && onlySelected(situation) !== null && isRoot(onlySelected(situation)!),
    act: ({ session, pane }) => {
      session.run((records, newIds) => evenOutSides(records, { map: pane.map }, newIds))
    },
  },
  {
    id: 'merge',
    name: plainly('Merge other maps into this one …'),
    keys: [],
    group: 'map',
    when: (situation) => editable(situation) && onlySelected(situation) !== null && isRoot(onlySelected(situation)!),
    act: ({ pane }) => workspace.dialog({ kind: 'merge', target: pane.map }),
  },
  {
    id: 'fit',
    name: plainly('Fit the map'),
    keys: ['Alt+f'],
    group: 'view',
    when: () => true,
    act: ({ index }) => workspace.show(index, 'all'),
  },
  {
    id: 'centre',
    name: plainly('Centre on this topic'),
    keys: ['Alt+c'],
    group: 'view',
    when: (situation) => onlySelected(situation) !== null,
    act: (situation) => workspace.show(situation.index, onlySelected(situation)!.id),
  },
  {
    id: 'fit-width',
    name: plainly('Fit the width of the map'),
    keys: ['Alt+Shift+f'],
    group: 'view',
    when: ({ pane }) => pane.face === 'map',
    act: ({ index }) => workspace.show(index, 'width'),
  },
  {
    id: 'fit-branch',
    name: plainly('Fit this branch'),
    keys: ['Alt+g'],
    group: 'view',
    when: (situation) => onlySelected(situation) !== null && situation.pane.face === 'map',
    act: (situation) => workspace.show(situation.index, onlySelected(situation)!.id, true),
  },
  {
    id: 'view-back',
    name: plainly('Back to where I was'),
    keys: ['Alt+z'],
    group: 'view',
    when: ({ pane }) => pane.face === 'map',
    act: ({ index }) => workspace.show(index, 'back'),
  },
  {
    id: 'overview',
    name: plainly('The overview of large maps'),
    keys: ['Alt+v'],
    group: 'view',
    when: ({ index }) => (stageOf(index)?.layout.boxes.length ?? 0) > LARGE_MAP,
    act: () => workspace.toggleOverview(),
  },
  {
    id: 'face-map',
    name: plainly('Show as map'),
    keys: ['Alt+1'],
    group: 'view',
    when: ({ pane }) => pane.face !== 'map',
    act: ({ index }) => workspace.setFace(index, 'map'),
  },
  {
    id: 'face-outline',
    name: plainly('Show as outline'),
    keys: ['Alt+2'],
    group: 'view',
    when: ({ pane }) => pane.face !== 'outline',
    act: ({ index }) => workspace.setFace(index, 'outline'),
  },
  {
    id: 'undo',
    name: plainly('Undo'),
    keys: ['Ctrl+z'],
    group: 'view',
    when: ({ session }) => session.undoable.undo !== null,
    act: ({ session }) => void session.takeBack('undo'),
  },
  {
    id: 'redo',
    name: plainly('Redo'),
    keys: ['Ctrl+Shift+z', 'Ctrl+y'],
    group: 'view',
    when: ({ session }) => session.undoable.redo !== null,
    act: ({ session }) => void session.takeBack('redo'),
  },
  {
    id: 'find',
    name: plainly('Find anything'),
    keys: ['Ctrl+k'],
    group: 'view',
    when: () => true,
    act: () => workspace.dialog({ kind: 'find' }),
  },
  {
    id: 'keys',
    name: plainly('All keys'),
    keys: ['F1', 'Ctrl+/'],
    group: 'view',
    when: () => true,
    act: () => workspace.dialog({ kind: 'keys' }),
  },
]

/** The name of a pressed key with its modifiers, as acts declare it. */
export function keyName(event: {
  key: string
  code: string
  ctrlKey: boolean
  metaKey: boolean
  altKey: boolean
  shiftKey: boolean
}): string {
  // With Alt some systems type another letter: then the place on the keyboard tells which key it was.
  const letter = event.altKey && /^(Key|Digit)./.test(event.code) ? event.code.replace(/^(Key|Digit)/, '') : event.key
  const key = letter.length === 1 ? letter.toLowerCase() : letter
  const shift = event.shiftKey && (key.length > 1 || event.ctrlKey || event.metaKey || event.altKey)
  return `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.altKey ? 'Alt+' : ''}${shift ? 'Shift+' : ''}${key}`
}

/** Carries out the act of a pressed key; false where the key has none that fits. */
export function actByKey(key: string, situation: Situation): boolean {
  const found = ACTS.find((act) => act.keys.includes(key) && act.when(situation))
  found?.act(situation)
  if (found) return true
  const words = ACTS.find((act) => act.keys.includes(key) && act.otherwise)?.otherwise?.(situation)
  if (words) tell(words)
  return Boolean(words)
}

const KEY_NAMES: Record<string, string> = {
  ' ': 'Space',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
}

/** A key as a person reads it. */
export const readableKey = (key: string): string =>
  key
    .split('+')
    .map((part) => KEY_NAMES[part] ?? (part.length === 1 ? part.toUpperCase() : part))
    .join(' + ')
