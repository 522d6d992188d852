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
import { isPlacedByHand, isRoot, parentOf, sideOf } from '../../core/records/place'
import { branch, topicsInOrder } from '../../core/tree/walk'
import { tell } from '../app/api'
import type { CollectionSession } from '../sync/collection-session'
import { type Act, editable, notRoot, onlySelected, plainly, type Situation } from './act'
import { carryFromMenu, pasteBranches } from './clipboard'
import { stageOf } from './shown-stages'
import { useWorkspace, workspace } from './workspace-store'

const ids = ({ topics }: Situation) => topics.map(({ id }) => id)
const hasChildren = ({ session, topics }: Situation) =>
  topics.some((topic) => session.records.children(topic.id).length > 0)
const hasParent = (situation: Situation) =>
  onlySelected(situation) !== null && parentOf(onlySelected(situation)!) !== null
const onRoot = (situation: Situation) =>
  editable(situation) && onlySelected(situation) !== null && isRoot(onlySelected(situation)!)

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
  run(situation, (records, newIds) => setSpacing(records, { map: pane.map, spacing }, newIds))
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
      run(situation, (records, newIds) =>
        onRoot(situation)
          ? setMapLayout(records, { map: situation.pane.map, layout }, newIds)
          : setBranchLayout(records, { topics: ids(situation), layout }, newIds),
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
      run(situation, (records, newIds) => numberBranch(records, { topics: ids(situation), scheme }, newIds)),
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
      onlySelected(situation) !== null &&
      situation.session.records.children(onlySelected(situation)!.id).length > 1,
    act: (situation) =>
      run(situation, (records, newIds) => sortChildren(records, { topic: onlySelected(situation)!.id, by }, newIds)),
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
      run(situation, (records, newIds) => foldToLevel(records, { map: situation.pane.map, level }, newIds)),
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
    when: (situation) =>
      editable(situation) && onlySelected(situation) !== null && useWorkspace.getState().carried !== null,
    act: (situation) => {
      const { carried } = useWorkspace.getState()
      if (carried && !pasteBranches(situation, carried.topics, onlySelected(situation)!.id))
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
      run(situation, (records, newIds) => duplicateBranches(records, { topics: ids(situation), onto: null }, newIds)),
  },
  {
    id: 'detach',
    name: plainly('Detach, to stand alone'),
    keys: [],
    group: 'move',
    when: (situation) => notRoot(situation) && situation.topics.some((topic) => parentOf(topic) !== null),
    act: (situation) =>
      run(situation, (records, newIds) => {
        const layout = stageOf(situation.index)?.layout
        const topics = ids(situation).map((topic, i) => {
          const box = layout?.byKey.of(topic)
          return { topic, at: { x: Math.round((box?.x ?? 0) + 24), y: Math.round((box?.y ?? i * 40) + 24) } }
        })
        return detachTopics(records, { topics }, newIds)
      }),
  },
  {
    id: 'keep-place',
    name: plainly('Keep it at this place'),
    keys: [],
    group: 'move',
    when: (situation) =>
      notRoot(situation) &&
      onlySelected(situation) !== null &&
      parentOf(onlySelected(situation)!) !== null &&
      !isPlacedByHand(onlySelected(situation)!) &&
      stageOf(situation.index)?.layout.byKey.of(onlySelected(situation)!.id) !== undefined,
    act: (situation) =>
      run(situation, (records, newIds) => {
        const topic = onlySelected(situation)!
        const box = stageOf(situation.index)!.layout.byKey.of(topic.id)!
        const at = { x: Math.round(box.x), y: Math.round(box.y) }
        return placeByHand(records, { topic: topic.id, at, side: sideOf(topic) ?? 'right' }, newIds)
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
      run(situation, (records, newIds) =>
        onRoot(situation)
          ? arrangeMap(records, { map: situation.pane.map }, newIds)
          : arrangeAgain(records, { topics: ids(situation) }, newIds),
      ),
  },
  {
    id: 'heading',
    name: plainly('Make it the heading of its siblings'),
    keys: [],
    group: 'shape',
    submenu: 'Regroup',
    when: (situation) => notRoot(situation) && hasParent(situation),
    act: (situation) =>
      run(situation, (records, newIds) => promoteToHeading(records, { topic: onlySelected(situation)!.id }, newIds)),
  },
  {
    id: 'beside',
    name: plainly('Put what is below beside it'),
    keys: [],
    group: 'shape',
    submenu: 'Regroup',
    when: (situation) => notRoot(situation) && hasParent(situation) && hasChildren(situation),
    act: (situation) =>
      run(situation, (records, newIds) => demoteHeading(records, { topic: onlySelected(situation)!.id }, newIds)),
  },
  {
    id: 'join',
    name: ({ topics }) => `Join ${topics.length} topics into one`,
    keys: [],
    group: 'shape',
    submenu: 'Regroup',
    when: (situation) => editable(situation) && situation.topics.length > 1,
    act: (situation) => run(situation, (records, newIds) => joinTopics(records, { topics: ids(situation) }, newIds)),
  },
  {
    id: 'split-lines',
    name: plainly('Make a topic of each line'),
    keys: [],
    group: 'shape',
    submenu: 'Regroup',
    when: (situation) => editable(situation) && (onlySelected(situation)?.text.trim().includes('\n') ?? false),
    act: (situation) =>
      run(situation, (records, newIds) => splitLines(records, { topic: onlySelected(situation)!.id }, newIds)),
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
          run(situation, (records, newIds) => encloseTopics(records, { topics: ids(situation), title }, newIds)),
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
      run(situation, (records, newIds) => setBranchLayout(records, { topics: ids(situation), layout: null }, newIds)),
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
      run(situation, (records, newIds) => setWidth(records, { topics: ids(situation), width: null }, newIds)),
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
      run(situation, (records, newIds) => numberBranch(records, { topics: ids(situation), scheme: null }, newIds)),
  },
  {
    id: 'number-fix',
    name: plainly('Fix its number …'),
    keys: [],
    group: 'shape',
    submenu: 'Numbers',
    when: (situation) => notRoot(situation) && onlySelected(situation) !== null,
    act: (situation) => {
      const topic = onlySelected(situation)!
      const number = stageOf(situation.index)?.layout.byKey.of(topic.id)?.number ?? topic.number ?? ''
      workspace.dialog({
        kind: 'ask',
        title: 'Fix the number',
        label: 'Number that the topic keeps, whatever its place',
        value: number,
        act: 'Fix it',
        take: (text) =>
          run(situation, (records, newIds) =>
            fixNumber(records, { topic: topic.id, number: text.trim().slice(0, 40) || null }, newIds),
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
    when: (situation) => notRoot(situation) && onlySelected(situation)?.number != null,
    act: (situation) =>
      run(situation, (records, newIds) =>
        fixNumber(records, { topic: onlySelected(situation)!.id, number: null }, newIds),
      ),
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
        onlySelected(situation) !== null &&
        countTypedNumbers(situation.session.records, onlySelected(situation)!.id) > 0,
      act: (situation) =>
        run(situation, (records, newIds) =>
          takeTypedNumbers(records, { topic: onlySelected(situation)!.id, keep }, newIds),
        ),
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
      run(situation, (records, newIds) => foldToLevel(records, { map: situation.pane.map, level: null }, newIds)),
  },
  {
    id: 'fold-all-but',
    name: plainly('All but the way to this topic'),
    keys: [],
    group: 'shape',
    submenu: 'Fold the map',
    when: (situation) => notRoot(situation) && onlySelected(situation) !== null,
    act: (situation) =>
      run(situation, (records, newIds) => foldAllBut(records, { topic: onlySelected(situation)!.id }, newIds)),
  },
  {
    id: 'only-branch',
    name: plainly('Show only this branch'),
    keys: ['Alt+o'],
    group: 'shape',
    when: (situation) =>
      onlySelected(situation) !== null &&
      !isRoot(onlySelected(situation)!) &&
      hasChildren(situation) &&
      situation.pane.only !== onlySelected(situation)!.id,
    act: (situation) => workspace.showOnly(situation.index, onlySelected(situation)!.id),
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
    when: hasParent,
    act: (situation) => {
      const topic = onlySelected(situation)!
      workspace.select(
        situation.index,
        situation.session.records.children(parentOf(topic)!).map(({ id }) => id),
      )
    },
  },
  {
    id: 'select-level',
    name: plainly('All on its level'),
    keys: [],
    group: 'shape',
    submenu: 'Select',
    when: (situation) => onlySelected(situation) !== null && stageOf(situation.index) !== undefined,
    act: (situation) => {
      const boxes = stageOf(situation.index)!.layout.boxes
      const level = boxes.find((box) => box.topic.id === onlySelected(situation)!.id)?.level
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
    when: (situation) => onlySelected(situation) !== null && stageOf(situation.index) !== undefined,
    act: (situation) => {
      const { boxes, byKey } = stageOf(situation.index)!.layout
      const own = byKey.of(onlySelected(situation)!.id)
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
