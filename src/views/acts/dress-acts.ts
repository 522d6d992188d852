import type { IdSource } from '../../core/commands/command'
import { encloseTopics } from '../../core/commands/enclosures'
import { LAYOUT_NAMES, setBranchLayout, setMapLayout, setSpacing, setWidth } from '../../core/commands/layouts'
import { changeLook, copyLook } from '../../core/commands/looks'
import {
  countTypedNumbers,
  fixNumber,
  fixNumbers,
  numberBranch,
  SCHEME_NAMES,
  takeTypedNumbers,
} from '../../core/commands/numbering'
import type { TopicId } from '../../core/records/ids'
import { LayoutKind, NumberingScheme } from '../../core/records/layout'
import { isRoot } from '../../core/records/place'
import type { Records } from '../../core/records/records'
import { branch } from '../../core/tree/walk'
import { stageOf } from '../workspace/shown-stages'
import { useWorkspace, workspace } from '../workspace/workspace-store'
import {
  accepted,
  acts,
  idsOf,
  mayEdit,
  notOnRoot,
  one,
  onRoot,
  run,
  type Situation,
  some,
  theTopic,
  unless,
  withBelow,
} from './act'

const LEAST_SPACING = 0.5
const MOST_SPACING = 3
const SPACING_STEP = 1.25

function space(situation: Situation, factor: number): void {
  const { session, pane } = situation
  const now = session.records.need('map', pane.map).spacing
  const spacing = Math.min(MOST_SPACING, Math.max(LEAST_SPACING, Math.round(now * factor * 100) / 100))
  run(situation, (records, newIds) => setSpacing(records, { map: pane.map, spacing }, newIds))
}

const isAtRoot = ({ topics }: Situation) => topics.length === 1 && isRoot(topics[0]!)

/** The text of the topic whose look was copied, where it is still there and held. */
function carriedName({ session }: Situation): string | null {
  const topic = session.records.get('topic', useWorkspace.getState().carriedLook)
  return topic && !topic.trashed ? topic.text.slice(0, 30) : null
}

const enclosing = (title: string) => (situation: Situation) => (records: Records, newIds: IdSource) =>
  encloseTopics(records, { topics: idsOf(situation), title }, newIds)

/** Whether the topic selected last is written in such letters, whatever they come from. */
function isWritten({ index, topics }: Situation, how: 'bold' | 'italic'): boolean {
  const topic = topics.at(-1)
  const style = topic && stageOf(index)?.layout.byKey.of(topic.id)?.style
  if (!style) return topic?.look?.[how] === true
  return how === 'bold' ? style.face.includes('-bold') : style.italic
}

/** The numbers of topics that are selected, and of those below them, that the map counts. */
function countedNumbers({ session, topics, index }: Situation): { topic: TopicId; number: string }[] {
  const shown = stageOf(index)?.layout.byKey
  const all = new Map(topics.flatMap((head) => [...branch(session.records, head)]).map((topic) => [topic.id, topic]))
  return [...all.values()].flatMap(({ id, number }) => {
    const counted = number === null ? shown?.of(id)?.number : null
    return counted ? { topic: id, number: counted } : []
  })
}

const typedBelow = unless(
  (situation) => countTypedNumbers(situation.session.records, theTopic(situation).id) > 0,
  'No numbers are typed below it.',
)

/** Acts on how a map looks: layouts, looks, frames, numbers. */
export const DRESS_ACTS = [
  ...acts('dress', 'Layout', [
    ...LayoutKind.options.map((layout) => ({
      id: `layout-${layout}`,
      name: (situation: Situation) => `${isAtRoot(situation) ? 'The map' : 'This branch'} ${LAYOUT_NAMES[layout]}`,
      drawing: `layout-${layout}`,
      when: [mayEdit, some],
      act: (situation: Situation) =>
        run(situation, (records, newIds) =>
          isAtRoot(situation)
            ? setMapLayout(records, { map: situation.pane.map, layout }, newIds)
            : setBranchLayout(records, { topics: idsOf(situation), layout }, newIds),
        ),
    })),
    {
      id: 'layout-around-it',
      name: 'As the branch around it',
      when: [
        mayEdit,
        some,
        notOnRoot,
        unless(({ topics }) => topics.some((topic) => topic.layout !== null), 'It has no layout of its own.'),
      ],
      act: (situation) =>
        run(situation, (records, newIds) =>
          setBranchLayout(records, { topics: idsOf(situation), layout: null }, newIds),
        ),
    },
  ]),
  ...acts('dress', 'Room', [
    {
      id: 'spacing-tighter',
      name: 'The map tighter',
      when: [mayEdit, one, onRoot],
      act: (situation) => space(situation, 1 / SPACING_STEP),
    },
    {
      id: 'spacing-wider',
      name: 'The map wider',
      when: [mayEdit, one, onRoot],
      act: (situation) => space(situation, SPACING_STEP),
    },
    {
      id: 'width-free',
      name: 'As wide as its words',
      when: [
        mayEdit,
        some,
        unless(({ topics }) => topics.some((topic) => topic.width !== null), 'Its width was not set by hand.'),
      ],
      act: (situation) =>
        run(situation, (records, newIds) => setWidth(records, { topics: idsOf(situation), width: null }, newIds)),
    },
  ]),
  ...acts('dress', 'Look', [
    {
      id: 'look',
      name: 'Change its look',
      finds: 'the colour of letters, words, lines and of what is behind; shape, fill, border, font, size, style',
      when: [mayEdit, some],
      leads: 'control',
      act: () => workspace.openSection('look', 'look'),
    },
    ...(['bold', 'italic'] as const).map((field) => ({
      id: field,
      name: (situation: Situation) =>
        isWritten(situation, field) ? `Letters not ${field}` : field === 'bold' ? 'Bold letters' : 'Italic letters',
      keys: [field === 'bold' ? 'Ctrl+b' : 'Ctrl+i'],
      when: [mayEdit, some],
      act: (situation: Situation) => {
        const set = { [field]: !isWritten(situation, field) }
        run(situation, (records, newIds) =>
          changeLook(records, { target: { kind: 'topics', topics: idsOf(situation) }, set, clear: [] }, newIds),
        )
      },
    })),
    {
      id: 'look-copy',
      name: 'Copy its look',
      keys: ['Ctrl+Alt+c'],
      when: [mayEdit, one],
      act: (situation) => workspace.carryLook(theTopic(situation).id),
    },
    {
      id: 'look-put',
      name: (situation) => `Put the look of ${carriedName(situation) ?? 'the copied topic'} on`,
      keys: ['Ctrl+Alt+v'],
      when: [mayEdit, some, unless((situation) => carriedName(situation) !== null, 'Copy a look first.')],
      act: (situation) => {
        const from = useWorkspace.getState().carriedLook!
        situation.session.run((records, newIds) => copyLook(records, { from, to: idsOf(situation) }, newIds))
      },
    },
  ]),
  ...acts('dress', 'Frame', [
    {
      id: 'enclose',
      name: 'Enclose …',
      drawing: 'enclose',
      leads: 'field',
      when: [mayEdit, some, notOnRoot, accepted(enclosing(''))],
      act: (situation) =>
        workspace.dialog({
          kind: 'ask',
          title: 'Enclose with a frame',
          label: 'Title, if it should have one',
          value: '',
          act: 'Enclose',
          take: (title) => run(situation, enclosing(title)(situation)),
        }),
    },
  ]),
  ...acts('dress', 'Numbers', [
    ...NumberingScheme.options.map((scheme) => ({
      id: `number-${scheme}`,
      name: `What is below: ${SCHEME_NAMES[scheme]}`,
      when: [mayEdit, some, withBelow],
      act: (situation: Situation) =>
        run(situation, (records, newIds) => numberBranch(records, { topics: idsOf(situation), scheme }, newIds)),
    })),
    {
      id: 'number-none',
      name: 'What is below: no numbers of its own',
      when: [
        mayEdit,
        some,
        unless(
          ({ session, topics }) =>
            topics.some((topic) =>
              isRoot(topic) ? session.records.get('map', topic.place.map)?.numbering : topic.numbering,
            ),
          'What is below has no numbers of its own.',
        ),
      ],
      act: (situation) =>
        run(situation, (records, newIds) => numberBranch(records, { topics: idsOf(situation), scheme: null }, newIds)),
    },
    {
      id: 'number-fix',
      name: 'Fix its number …',
      leads: 'field',
      when: [mayEdit, one, notOnRoot],
      act: (situation) => {
        const topic = theTopic(situation)
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
      id: 'number-fix-shown',
      name: 'Fix the numbers as they are counted, here and below',
      when: [
        mayEdit,
        some,
        unless((situation) => countedNumbers(situation).length > 0, 'No number is counted here or below.'),
      ],
      act: (situation) =>
        run(situation, (records, newIds) => fixNumbers(records, { numbers: countedNumbers(situation) }, newIds)),
    },
    {
      id: 'number-count',
      name: 'Count again',
      when: [
        mayEdit,
        some,
        unless(
          ({ topics }) => topics.some(({ number }) => number !== null),
          'None of these topics has a fixed number.',
        ),
      ],
      act: (situation) =>
        run(situation, (records, newIds) => {
          const fixed = situation.topics.filter(({ number }) => number !== null)
          return fixNumbers(records, { numbers: fixed.map(({ id }) => ({ topic: id, number: null })) }, newIds)
        }),
    },
    ...([true, false] as const).map((keep) => ({
      id: keep ? 'number-keep-typed' : 'number-count-typed',
      name: keep ? 'Fix the numbers typed below' : 'Count instead of the numbers typed below',
      when: [mayEdit, one, typedBelow],
      act: (situation: Situation) =>
        run(situation, (records, newIds) => takeTypedNumbers(records, { topic: theTopic(situation).id, keep }, newIds)),
    })),
  ]),
]
