import type { Command, IdSource } from '../../core/commands/command'
import { evenOutSides, holdSides } from '../../core/commands/even-out-sides'
import { foldAllBut, foldToLevel, foldTopics } from '../../core/commands/fold-topics'
import { arrangeAgain, arrangeMap, detachTopics, placeByHand, setFree } from '../../core/commands/places'
import { demoteHeading, joinTopics, promoteToHeading, splitLines } from '../../core/commands/regroup'
import { type SortBy, sortChildren } from '../../core/commands/sort-children'
import { type Step, stepTopic } from '../../core/commands/step-topic'
import type { TopicBox } from '../../core/layout/boxes'
import { isPlacedByHand, isRoot, parentOf, sideOf } from '../../core/records/place'
import type { Records } from '../../core/records/records'
import { isFree } from '../../core/tree/free'
import { branch, topicsInOrder } from '../../core/tree/walk'
import { announce } from '../app/announce'
import { stageOf } from '../workspace/shown-stages'
import { workspace } from '../workspace/workspace-store'
import {
  accepted,
  acts,
  hanging,
  idsOf,
  mayEdit,
  notOnRoot,
  one,
  onMap,
  onRoot,
  run,
  type Situation,
  several,
  some,
  theTopic,
  unless,
  withBelow,
} from './act'

const onStage = unless(({ index }) => stageOf(index) !== undefined, 'This is seen on the map: choose Map at the top.')
const hasSeveralBelow = unless(
  ({ session, topics }) => session.records.children(topics[0]!.id).length > 1,
  'It needs two topics or more below it.',
)
const onFirstLevel = unless(
  ({ session, topics }) =>
    topics.every((topic) => {
      const parent = session.records.get('topic', parentOf(topic))
      return parent !== undefined && isRoot(parent) && sideOf(topic) !== null
    }),
  'Only first-level topics have a side.',
)
const isShown = unless(
  ({ index, topics }) => stageOf(index)?.layout.byKey.of(topics[0]!.id) !== undefined,
  'It is folded away: unfold what is above it first.',
)
const isArranged = unless(({ topics }) => !isPlacedByHand(topics[0]!), 'It keeps its place already.')
const hasPlaced = unless(
  ({ session, topics }) => topics.some((topic) => [...branch(session.records, topic)].some(isPlacedByHand)),
  'Nothing here is placed by hand.',
)

/** An act that a command of core does; what it would refuse is not offered. */
const doing =
  <Args>(command: Command<Args>, argsOf: (situation: Situation) => Args) =>
  (situation: Situation) =>
  (records: Records, newIds: IdSource) =>
    command(records, argsOf(situation), newIds)

/** By how much a step moves a topic that stands free, in px. */
const NUDGE = 24
const NUDGES: Partial<Record<Step, { x: number; y: number }>> = {
  up: { x: 0, y: -NUDGE },
  down: { x: 0, y: NUDGE },
  left: { x: -NUDGE, y: 0 },
  right: { x: NUDGE, y: 0 },
}

const step = (direction: Step, name: string, key: string) => {
  const among = doing(stepTopic, (situation) => ({ topic: theTopic(situation).id, step: direction }))
  /** In a free region a topic goes a little in that direction, else among its siblings. */
  const stepping = (situation: Situation) => (records: Records, newIds: IdSource) => {
    const topic = theTopic(situation)
    const [by, box] = [NUDGES[direction], stageOf(situation.index)?.layout.byKey.of(topic.id)]
    if (!by || !box || !isFree(records, topic)) return among(situation)(records, newIds)
    const place = {
      topic: topic.id,
      at: { x: Math.round(box.x + by.x), y: Math.round(box.y + by.y) },
      from: { x: box.x, y: box.y },
      side: sideOf(topic) ?? ('right' as const),
    }
    return placeByHand(records, { topics: [place] }, newIds)
  }
  return {
    id: `move-${direction}`,
    name,
    keys: [key],
    when: [mayEdit, one, notOnRoot, accepted(stepping)],
    act: (situation: Situation) => {
      if (situation.session.run(stepping(situation))) workspace.show(situation.index, 'seen')
    },
  }
}

const freeing = doing(setFree, (situation) => {
  const topic = theTopic(situation)
  return { topic: topic.id, free: !topic.free }
})
const rootOrWithBelow = unless(
  ({ session, topics }) => isRoot(topics[0]!) || session.records.children(topics[0]!.id).length > 0,
  'Nothing hangs below it.',
)
const notFreeAround = unless(
  ({ session, topics }) => topics[0]!.free || !isFree(session.records, topics[0]!),
  'Every place around it is kept already.',
)

const makingHeading = doing(promoteToHeading, (situation) => ({ topic: theTopic(situation).id }))
const joining = doing(joinTopics, (situation) => ({ topics: idsOf(situation) }))
const sorting = (by: SortBy) => doing(sortChildren, (situation) => ({ topic: theTopic(situation).id, by }))

/** Acts that give a map its order: places, sides, headings, folding, and what is selected for them. */
export const SHAPE_ACTS = [
  ...acts('shape', 'Move', [
    step('up', 'Move up', 'Alt+ArrowUp'),
    step('down', 'Move down', 'Alt+ArrowDown'),
    step('left', 'Move to the left', 'Alt+ArrowLeft'),
    step('right', 'Move to the right', 'Alt+ArrowRight'),
    step('out', 'Move out one level', 'Shift+Tab'),
  ]),
  ...acts('shape', 'Regroup', [
    {
      id: 'heading',
      name: 'Make it the heading of its siblings',
      drawing: 'heading',
      when: [mayEdit, one, notOnRoot, hanging, accepted(makingHeading)],
      act: (situation) => run(situation, makingHeading(situation)),
    },
    {
      id: 'put-beside',
      name: 'Put what is below beside it',
      drawing: 'beside',
      when: [mayEdit, one, notOnRoot, hanging, withBelow],
      act: (situation) =>
        run(situation, (records, newIds) => demoteHeading(records, { topic: theTopic(situation).id }, newIds)),
    },
    {
      id: 'join',
      name: ({ topics }) => (topics.length > 1 ? `Join ${topics.length} topics into one` : 'Join topics into one'),
      drawing: 'join',
      when: [mayEdit, several, accepted(joining)],
      act: (situation) => run(situation, joining(situation)),
    },
    {
      id: 'split-lines',
      name: 'Make a topic of each line',
      when: [
        mayEdit,
        one,
        unless(({ topics }) => topics[0]!.text.trim().includes('\n'), 'Its text has one line only.'),
      ],
      act: (situation) =>
        run(situation, (records, newIds) => splitLines(records, { topic: theTopic(situation).id }, newIds)),
    },
  ]),
  ...acts(
    'shape',
    'Sort',
    (['text', 'date', 'number'] as const).map((by) => ({
      id: `sort-${by}`,
      name: `What is below, by ${by}`,
      when: [mayEdit, one, hasSeveralBelow, accepted(sorting(by))],
      act: (situation: Situation) => run(situation, sorting(by)(situation)),
    })),
  ),
  ...acts('shape', 'Place', [
    {
      id: 'detach',
      name: 'Detach, to stand alone',
      drawing: 'detach',
      when: [
        mayEdit,
        some,
        notOnRoot,
        unless(({ topics }) => topics.some((topic) => parentOf(topic) !== null), 'It stands alone already.'),
      ],
      act: (situation) =>
        run(situation, (records, newIds) => {
          const layout = stageOf(situation.index)?.layout
          const topics = idsOf(situation).map((topic, i) => {
            const box = layout?.byKey.of(topic)
            return { topic, at: { x: Math.round((box?.x ?? 0) + 24), y: Math.round((box?.y ?? i * 40) + 24) } }
          })
          return detachTopics(records, { topics }, newIds)
        }),
    },
    {
      id: 'keep-place',
      name: 'Keep it at this place',
      when: [mayEdit, one, notOnRoot, hanging, isArranged, onStage, isShown],
      act: (situation) =>
        run(situation, (records, newIds) => {
          const topic = theTopic(situation)
          const box = stageOf(situation.index)!.layout.byKey.of(topic.id)!
          const at = { x: Math.round(box.x), y: Math.round(box.y) }
          return placeByHand(records, { topics: [{ topic: topic.id, at, side: sideOf(topic) ?? 'right' }] }, newIds)
        }),
    },
    {
      id: 'free',
      name: ({ topics }) => {
        const what = topics[0] && !isRoot(topics[0]) ? 'below it' : 'on the map'
        return topics[0]?.free ? `Arrange everything ${what}` : `Keep every place ${what}`
      },
      finds: 'free, freely, by hand, move anywhere',
      when: [mayEdit, one, rootOrWithBelow, notFreeAround],
      act: (situation) => run(situation, freeing(situation)),
    },
    {
      id: 'arrange',
      name: ({ topics }) => (topics[0] && isRoot(topics[0]) ? 'Arrange everything again' : 'Arrange it again'),
      when: [mayEdit, some, hasPlaced],
      act: (situation) =>
        run(situation, (records, newIds) =>
          situation.topics.length === 1 && isRoot(theTopic(situation))
            ? arrangeMap(records, { map: situation.pane.map }, newIds)
            : arrangeAgain(records, { topics: idsOf(situation) }, newIds),
        ),
    },
    {
      id: 'hold-side',
      name: ({ topics }) => (topics[0]?.held ? 'Let it change sides' : 'Hold it to this side'),
      when: [mayEdit, some, notOnRoot, onFirstLevel],
      act: (situation) => {
        const held = !theTopic(situation).held
        run(situation, (records, newIds) => holdSides(records, { topics: idsOf(situation), held }, newIds))
      },
    },
    {
      id: 'even-out',
      name: 'Even out the sides',
      drawing: 'even',
      when: [mayEdit, one, onRoot],
      act: (situation) => {
        situation.session.run((records, newIds) => evenOutSides(records, { map: situation.pane.map }, newIds))
      },
    },
  ]),
  ...acts('shape', 'Fold', [
    {
      id: 'fold',
      name: ({ topics }) => (topics[0]?.folded ? 'Unfold' : 'Fold'),
      keys: [' '],
      drawing: 'fold',
      when: [mayEdit, some, notOnRoot, withBelow],
      act: (situation) => {
        const folded = !theTopic(situation).folded
        situation.session.run((records, newIds) => foldTopics(records, { topics: idsOf(situation), folded }, newIds))
      },
    },
    ...[1, 2, 3].map((level) => ({
      id: `fold-level-${level}`,
      name: `The map to level ${level}`,
      when: [mayEdit],
      act: (situation: Situation) =>
        run(situation, (records, newIds) => foldToLevel(records, { map: situation.pane.map, level }, newIds)),
    })),
    {
      id: 'unfold-all',
      name: 'Unfold everything',
      when: [mayEdit],
      act: (situation) =>
        run(situation, (records, newIds) => foldToLevel(records, { map: situation.pane.map, level: null }, newIds)),
    },
    {
      id: 'fold-all-but',
      name: 'All but the way to this topic',
      when: [mayEdit, one, notOnRoot],
      act: (situation) =>
        run(situation, (records, newIds) => foldAllBut(records, { topic: theTopic(situation).id }, newIds)),
    },
    {
      id: 'only-branch',
      name: 'Show only this branch',
      keys: ['Alt+o'],
      when: [
        one,
        notOnRoot,
        withBelow,
        unless(({ pane, topics }) => pane.only !== topics[0]!.id, 'It is shown alone already.'),
      ],
      act: (situation) => workspace.showOnly(situation.index, theTopic(situation).id),
    },
    {
      id: 'whole-map',
      name: 'Show the whole map',
      keys: ['Alt+w'],
      when: [unless(({ pane }) => pane.only !== null, 'The whole map is shown.')],
      act: ({ index }) => workspace.showOnly(index, null),
    },
  ]),
  ...acts('shape', 'Select', [
    {
      id: 'select-branch',
      name: 'The whole branch',
      when: [some, withBelow],
      act: ({ session, topics, index }) =>
        workspace.select(
          index,
          topics.flatMap((topic) => [...branch(session.records, topic)].map(({ id }) => id)),
        ),
    },
    {
      id: 'select-siblings',
      name: 'Its siblings too',
      when: [one, hanging],
      act: (situation) =>
        workspace.select(
          situation.index,
          situation.session.records.children(parentOf(theTopic(situation))!).map(({ id }) => id),
        ),
    },
    {
      id: 'select-level',
      name: 'All on its level',
      when: [one, onMap, onStage],
      act: (situation) => {
        const boxes = stageOf(situation.index)!.layout.boxes
        const level = boxes.find((box) => box.topic.id === theTopic(situation).id)?.level
        workspace.select(
          situation.index,
          boxes.filter((box) => box.level === level).map((box) => box.topic.id),
        )
      },
    },
    {
      id: 'select-alike',
      name: 'All that look like it',
      when: [one, onMap, onStage],
      act: (situation) => {
        const { boxes, byKey } = stageOf(situation.index)!.layout
        const own = byKey.of(theTopic(situation).id)
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
      name: 'Everything on the map',
      keys: ['Ctrl+a'],
      act: ({ session, pane, index }) => {
        const all = [...topicsInOrder(session.records, pane.map)].map(({ id }) => id)
        workspace.select(index, all)
        announce(`${all.length} topics selected`)
      },
    },
  ]),
]
