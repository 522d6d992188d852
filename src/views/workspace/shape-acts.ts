import { duplicateBranches } from '../../core/commands/duplicate-branches'
import { encloseTopics } from '../../core/commands/enclosures'
import { foldAllBut, foldToLevel } from '../../core/commands/fold-topics'
import { LAYOUT_NAMES, setBranchLayout, setMapLayout, setSpacing, setWidth } from '../../core/commands/layouts'
import {
  countTypedNumbers,
  fixNumber,
  numberBranch,
  SCHEME_NAMES,
  takeTypedNumbers,
} from '../../core/commands/numbering'
import { arrangeAgain, arrangeMap, detachTopics, placeByHand } from '../../core/commands/places'
import { demoteHeading, joinTopics, promoteToHeading, splitLines } from '../../core/commands/regroup'
import { sortChildren } from '../../core/commands/sort-children'
import type { TopicBox } from '../../core/layout/boxes'
import { LayoutKind, NumberingScheme } from '../../core/records/layout'
import { isPlacedByHand, isRoot } from '../../core/records/topic'
import { branch, topicsInOrder } from '../../core/tree/walk'
import { tell } from '../app/api'
import type { CollectionSession } from '../sync/collection-session'
import { type Act, editable, notRoot, one, plainly, type Situation } from './act'
import { carryFromMenu, pasteBranches } from './clipboard'
import { stageOf } from './shown-stages'
import { useWorkspace, workspace } from './workspace-store'

const ids = ({ topics }: Situation) => topics.map(({ id }) => id)
const hasChildren = ({ session, topics }: Situation) =>
  topics.some((topic) => session.records.children(topic.id).length > 0)
const onRoot = (situation: Situation) => editable(situation) && one(situation) !== null && isRoot(one(situation)!)

/** Runs a command and selects what it made. */
function run({ session, index }: Situation, command: Parameters<CollectionSession['run']>[0]): void {
  const select = session.run(command)
  if (select && select.length > 0) workspace.select(index, select)
}

const LEAST_SPACING = 0.5
const MOST_SPACING = 3
const SPACING_STEP = 1.25

function space(situation: Situation, factor: number): void {
  const { session, pane } = situation
  const now = session.records.need('map', pane.map).spacing
  const spacing = Math.min(MOST_SPACING, Math.max(LEAST_SPACING, Math.round(now * factor * 100) / 100))
  run(situation, (records, making) => setSpacing(records, { map: pane.map, spacing }, making))
}

const layoutActs = LayoutKind.options.map(
  (layout): Act => ({
    id: `layout-${layout}`,
    name: ({ topics }) =>
      topics[0] && isRoot(topics[0]) ? `The map ${LAYOUT_NAMES[layout]}` : `This branch ${LAYOUT_NAMES[layout]}`,
    keys: [],
    group: 'shape',
    submenu: 'Layout',
    when: editable,
    act: (situation) =>
      run(situation, (records, making) =>
        onRoot(situation)
          ? setMapLayout(records, { map: situation.pane.map, layout }, making)
          : setBranchLayout(records, { topics: ids(situation), layout }, making),
      ),
  }),
)

const numberActs = NumberingScheme.options.map(
  (scheme): Act => ({
    id: `number-${scheme}`,
    name: plainly(`What is below: ${SCHEME_NAMES[scheme]}`),
    keys: [],
    group: 'shape',
    submenu: 'Numbers',
    when: (situation) => editable(situation) && hasChildren(situation),
    act: (situation) =>
      run(situation, (records, making) => numberBranch(records, { topics: ids(situation), scheme }, making)),
  }),
)

const sortActs = (['text', 'date', 'number'] as const).map(
  (by): Act => ({
    id: `sort-${by}`,
    name: plainly(`What is below, by ${by}`),
    keys: [],
    group: 'shape',
    submenu: 'Sort',
    when: (situation) =>
      editable(situation) &&
      one(situation) !== null &&
      situation.session.records.children(one(situation)!.id).length > 1,
    act: (situation) =>
      run(situation, (records, making) => sortChildren(records, { topic: one(situation)!.id, by }, making)),
  }),
)

const levelActs = [1, 2, 3].map(
  (level): Act => ({
    id: `fold-level-${level}`,
    name: plainly(`To level ${level}`),
    keys: [],
    group: 'shape',
    submenu: 'Fold the map',
    when: editable,
    act: (situation) =>
      run(situation, (records, making) => foldToLevel(records, { map: situation.pane.map, level }, making)),
  }),
)

/** Acts on the shape of a map: order, layout, numbers, enclosures, folding, selecting. */
export const SHAPE_ACTS: readonly Act[] = [
  {
    id: 'copy',
    name: plainly('Copy'),
    keys: [],
    group: 'move',
    when: ({ topics }) => topics.length > 0,
    act: (situation) => carryFromMenu(situation, false),
  },
  {
    id: 'cut',
    name: plainly('Cut'),
    keys: [],
    group: 'move',
    when: notRoot,
    act: (situation) => carryFromMenu(situation, true),
  },
  {
    id: 'paste',
    name: () => {
      const { carried } = useWorkspace.getState()
      return carried?.cut ? 'Paste here what was cut' : 'Paste here what was copied'
    },
    keys: [],
    group: 'move',
    when: (situation) => editable(situation) && one(situation) !== null && useWorkspace.getState().carried !== null,
    act: (situation) => {
      const { carried } = useWorkspace.getState()
      if (carried && !pasteBranches(situation, carried.topics, one(situation)!.id))
        tell('The map on which that stands is no longer open. Open it and copy again.')
    },
  },
  {
    id: 'duplicate',
    name: plainly('Duplicate'),
    keys: ['Ctrl+d'],
    group: 'move',
    when: notRoot,
    act: (situation) =>
      run(situation, (records, making) => duplicateBranches(records, { topics: ids(situation), onto: null }, making)),
  },
  {
    id: 'detach',
    name: plainly('Detach, to stand alone'),
    keys: [],
    group: 'move',
    when: (situation) => notRoot(situation) && situation.topics.some((topic) => topic.place.parent !== null),
    act: (situation) =>
      run(situation, (records, making) => {
        const layout = stageOf(situation.index)?.layout
        const topics = ids(situation).map((topic, i) => {
          const box = layout?.byTopic.get(topic)
          return { topic, at: { x: Math.round((box?.x ?? 0) + 24), y: Math.round((box?.y ?? i * 40) + 24) } }
        })
        return detachTopics(records, { topics }, making)
      }),
  },
  {
    id: 'keep-place',
    name: plainly('Keep it at this place'),
    keys: [],
    group: 'move',
    when: (situation) =>
      notRoot(situation) &&
      one(situation) !== null &&
      one(situation)!.place.parent !== null &&
      !isPlacedByHand(one(situation)!) &&
      stageOf(situation.index)?.layout.byTopic.has(one(situation)!.id) === true,
    act: (situation) =>
      run(situation, (records, making) => {
        const topic = one(situation)!
        const box = stageOf(situation.index)!.layout.byTopic.get(topic.id)!
        const at = { x: Math.round(box.x), y: Math.round(box.y) }
        return placeByHand(records, { topic: topic.id, at, side: topic.place.side ?? 'right' }, making)
      }),
  },
  {
    id: 'arrange',
    name: ({ topics }) => (topics[0] && isRoot(topics[0]) ? 'Arrange everything again' : 'Arrange it again'),
    keys: [],
    group: 'move',
    when: (situation) =>
      editable(situation) &&
      situation.topics.some((topic) => [...branch(situation.session.records, topic)].some(isPlacedByHand)),
    act: (situation) =>
      run(situation, (records, making) =>
        onRoot(situation)
          ? arrangeMap(records, { map: situation.pane.map }, making)
          : arrangeAgain(records, { topics: ids(situation) }, making),
      ),
  },
  {
    id: 'heading',
    name: plainly('Make it the heading of its siblings'),
    keys: [],
    group: 'shape',
    submenu: 'Regroup',
    when: (situation) => notRoot(situation) && one(situation)?.place.parent != null,
    act: (situation) =>
      run(situation, (records, making) => promoteToHeading(records, { topic: one(situation)!.id }, making)),
  },
  {
    id: 'beside',
    name: plainly('Put what is below beside it'),
    keys: [],
    group: 'shape',
    submenu: 'Regroup',
    when: (situation) => notRoot(situation) && one(situation)?.place.parent != null && hasChildren(situation),
    act: (situation) =>
      run(situation, (records, making) => demoteHeading(records, { topic: one(situation)!.id }, making)),
  },
  {
    id: 'join',
    name: ({ topics }) => `Join ${topics.length} topics into one`,
    keys: [],
    group: 'shape',
    submenu: 'Regroup',
    when: (situation) => editable(situation) && situation.topics.length > 1,
    act: (situation) => run(situation, (records, making) => joinTopics(records, { topics: ids(situation) }, making)),
  },
  {
    id: 'split-lines',
    name: plainly('Make a topic of each line'),
    keys: [],
    group: 'shape',
    submenu: 'Regroup',
    when: (situation) => editable(situation) && (one(situation)?.text.trim().includes('\n') ?? false),
    act: (situation) => run(situation, (records, making) => splitLines(records, { topic: one(situation)!.id }, making)),
  },
  ...sortActs,
  {
    id: 'enclose',
    name: plainly('Enclose …'),
    keys: [],
    group: 'shape',
    when: notRoot,
    act: (situation) =>
      workspace.dialog({
        kind: 'ask',
        title: 'Enclose with a frame',
        label: 'Title, if it should have one',
        value: '',
        act: 'Enclose',
        take: (title) =>
          run(situation, (records, making) => encloseTopics(records, { topics: ids(situation), title }, making)),
      }),
  },
  ...layoutActs,
  {
    id: 'layout-around-it',
    name: plainly('As the branch around it'),
    keys: [],
    group: 'shape',
    submenu: 'Layout',
    when: (situation) => notRoot(situation) && situation.topics.some((topic) => topic.layout !== null),
    act: (situation) =>
      run(situation, (records, making) => setBranchLayout(records, { topics: ids(situation), layout: null }, making)),
  },
  {
    id: 'spacing-tighter',
    name: plainly('The map tighter'),
    keys: [],
    group: 'shape',
    submenu: 'Layout',
    when: onRoot,
    act: (situation) => space(situation, 1 / SPACING_STEP),
  },
  {
    id: 'spacing-wider',
    name: plainly('The map wider'),
    keys: [],
    group: 'shape',
    submenu: 'Layout',
    when: onRoot,
    act: (situation) => space(situation, SPACING_STEP),
  },
  {
    id: 'width-free',
    name: plainly('As wide as its words'),
    keys: [],
    group: 'shape',
    submenu: 'Layout',
    when: (situation) => editable(situation) && situation.topics.some((topic) => topic.width !== null),
    act: (situation) =>
      run(situation, (records, making) => setWidth(records, { topics: ids(situation), width: null }, making)),
  },
  ...numberActs,
  {
    id: 'number-none',
    name: plainly('What is below: no numbers of its own'),
    keys: [],
    group: 'shape',
    submenu: 'Numbers',
    when: (situation) =>
      editable(situation) &&
      situation.topics.some((topic) =>
        isRoot(topic) ? situation.session.records.get('map', topic.place.map)?.numbering : topic.numbering,
      ),
    act: (situation) =>
      run(situation, (records, making) => numberBranch(records, { topics: ids(situation), scheme: null }, making)),
  },
  {
    id: 'number-fix',
    name: plainly('Fix its number …'),
    keys: [],
    group: 'shape',
    submenu: 'Numbers',
    when: (situation) => notRoot(situation) && one(situation) !== null,
    act: (situation) => {
      const topic = one(situation)!
      const number = stageOf(situation.index)?.layout.byTopic.get(topic.id)?.number ?? topic.number ?? ''
      workspace.dialog({
        kind: 'ask',
        title: 'Fix the number',
        label: 'Number that the topic keeps, whatever its place',
        value: number,
        act: 'Fix it',
        take: (text) =>
          run(situation, (records, making) =>
            fixNumber(records, { topic: topic.id, number: text.trim().slice(0, 40) || null }, making),
          ),
      })
    },
  },
  {
    id: 'number-count',
    name: plainly('Count it again'),
    keys: [],
    group: 'shape',
    submenu: 'Numbers',
    when: (situation) => notRoot(situation) && one(situation)?.number != null,
    act: (situation) =>
      run(situation, (records, making) => fixNumber(records, { topic: one(situation)!.id, number: null }, making)),
  },
  ...([true, false] as const).map(
    (keep): Act => ({
      id: keep ? 'number-keep-typed' : 'number-count-typed',
      name: plainly(keep ? 'Fix the numbers typed below' : 'Count instead of the numbers typed below'),
      keys: [],
      group: 'shape',
      submenu: 'Numbers',
      when: (situation) =>
        editable(situation) &&
        one(situation) !== null &&
        countTypedNumbers(situation.session.records, one(situation)!.id) > 0,
      act: (situation) =>
        run(situation, (records, making) => takeTypedNumbers(records, { topic: one(situation)!.id, keep }, making)),
    }),
  ),
  ...levelActs,
  {
    id: 'unfold-all',
    name: plainly('Unfold everything'),
    keys: [],
    group: 'shape',
    submenu: 'Fold the map',
    when: editable,
    act: (situation) =>
      run(situation, (records, making) => foldToLevel(records, { map: situation.pane.map, level: null }, making)),
  },
  {
    id: 'fold-all-but',
    name: plainly('All but the way to this topic'),
    keys: [],
    group: 'shape',
    submenu: 'Fold the map',
    when: (situation) => notRoot(situation) && one(situation) !== null,
    act: (situation) => run(situation, (records, making) => foldAllBut(records, { topic: one(situation)!.id }, making)),
  },
  {
    id: 'only-branch',
    name: plainly('Show only this branch'),
    keys: ['Alt+o'],
    group: 'shape',
    when: (situation) =>
      one(situation) !== null &&
      !isRoot(one(situation)!) &&
      hasChildren(situation) &&
      situation.pane.only !== one(situation)!.id,
    act: (situation) => workspace.showOnly(situation.index, one(situation)!.id),
  },
  {
    id: 'whole-map',
    name: plainly('Show the whole map'),
    keys: ['Alt+w'],
    group: 'view',
    when: ({ pane }) => pane.only !== null,
    act: ({ index }) => workspace.showOnly(index, null),
  },
  {
    id: 'select-branch',
    name: plainly('The whole branch'),
    keys: [],
    group: 'shape',
    submenu: 'Select',
    when: (situation) => situation.topics.length > 0 && hasChildren(situation),
    act: ({ session, topics, index }) =>
      workspace.select(
        index,
        topics.flatMap((topic) => [...branch(session.records, topic)].map(({ id }) => id)),
      ),
  },
  {
    id: 'select-siblings',
    name: plainly('Its siblings too'),
    keys: [],
    group: 'shape',
    submenu: 'Select',
    when: (situation) => one(situation)?.place.parent != null,
    act: (situation) => {
      const topic = one(situation)!
      workspace.select(
        situation.index,
        situation.session.records.children(topic.place.parent!).map(({ id }) => id),
      )
    },
  },
  {
    id: 'select-level',
    name: plainly('All on its level'),
    keys: [],
    group: 'shape',
    submenu: 'Select',
    when: (situation) => one(situation) !== null && stageOf(situation.index) !== undefined,
    act: (situation) => {
      const boxes = stageOf(situation.index)!.layout.boxes
      const level = boxes.find((box) => box.topic.id === one(situation)!.id)?.level
      workspace.select(
        situation.index,
        boxes.filter((box) => box.level === level).map((box) => box.topic.id),
      )
    },
  },
  {
    id: 'select-alike',
    name: plainly('All that look like it'),
    keys: [],
    group: 'shape',
    submenu: 'Select',
    when: (situation) => one(situation) !== null && stageOf(situation.index) !== undefined,
    act: (situation) => {
      const { boxes, byTopic } = stageOf(situation.index)!.layout
      const own = byTopic.get(one(situation)!.id)
      // Equal styles are the same object; marks and doorways are seen as well.
      const seen = ({ topic }: TopicBox) => [...topic.badges, topic.task, topic.opensMap !== null].join(' ')
      const alike = boxes.filter((box) => own && box.style === own.style && seen(box) === seen(own))
      workspace.select(
        situation.index,
        alike.map((box) => box.topic.id),
      )
    },
  },
  {
    id: 'select-all',
    name: plainly('Everything on the map'),
    keys: ['Ctrl+a'],
    group: 'shape',
    submenu: 'Select',
    when: () => true,
    act: ({ session, pane, index }) =>
      workspace.select(
        index,
        [...topicsInOrder(session.records, pane.map)].map(({ id }) => id),
      ),
  },
]
