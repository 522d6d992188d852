import type { IdSource } from '../../core/commands/command'
import { deleteTopics } from '../../core/commands/delete-topics'
import { duplicateBranches } from '../../core/commands/duplicate-branches'
import { insertBetween } from '../../core/commands/insert-between'
import { saveTemplate } from '../../core/commands/save-template'
import { copyToPlace, putToPlace } from '../../core/commands/to-place'
import { linksInto } from '../../core/network/leads-into'
import { parentOf } from '../../core/records/place'
import type { Records } from '../../core/records/records'
import { isEmpty, matches } from '../../core/tree/filter'
import { branch, topicsInOrder } from '../../core/tree/walk'
import { tell } from '../app/api'
import { capture } from '../capture/CaptureKey'
import { carryFromMenu, pasteBranches } from '../workspace/clipboard'
import { tellHappened } from '../workspace/happened'
import { useWorkspace, workspace } from '../workspace/workspace-store'
import {
  accepted,
  acts,
  hanging,
  idsOf,
  mayEdit,
  noRoot,
  notOnRoot,
  one,
  onMap,
  run,
  type Situation,
  some,
  theTopic,
  unless,
  withBelow,
} from './act'
import { composeAbove, composeChild, composeSibling } from './compose'

const carriesSomething = unless(() => useWorkspace.getState().carried !== null, 'Copy or cut a branch first.')

const puttingAbove = (situation: Situation) => (records: Records, newIds: IdSource) =>
  insertBetween(records, { topics: idsOf(situation), text: '' }, newIds)

const filtered = unless(({ pane }) => Boolean(pane.filter) && !isEmpty(pane.filter!), 'Set a filter first, at the top.')

/** Acts that bring topics onto a map. */
export const GATHER_ACTS = [
  ...acts('gather', 'Write', [
    {
      id: 'edit',
      name: 'Edit the text',
      keys: ['F2'],
      when: [mayEdit, one],
      leads: 'writing',
      act: (situation) => workspace.edit(situation.index, { topic: theTopic(situation).id, text: null }),
    },
    {
      id: 'add-child',
      name: 'Add a child',
      keys: ['Tab'],
      drawing: 'child',
      leads: 'writing',
      when: [mayEdit, one],
      act: (situation) => composeChild(situation, theTopic(situation)),
    },
    {
      id: 'add-sibling',
      name: ({ topics }) => (topics[0] && !parentOf(topics[0]) ? 'Add a first-level topic' : 'Add a sibling'),
      keys: ['Enter'],
      drawing: 'sibling',
      leads: 'writing',
      when: [mayEdit, one],
      act: (situation) => composeSibling(situation, theTopic(situation)),
    },
    {
      id: 'add-above',
      name: ({ topics }) => (topics.length > 1 ? 'Add a topic above them' : 'Add a topic above it'),
      keys: ['Shift+Enter'],
      drawing: 'above',
      leads: 'writing',
      when: [mayEdit, some, notOnRoot, hanging, accepted(puttingAbove)],
      act: (situation) => composeAbove(situation, idsOf(situation)),
    },
  ]),
  ...acts('gather', 'Many at once', [
    {
      id: 'jot',
      name: 'Write down an idea for later',
      keys: ['Alt+j'],
      when: [mayEdit],
      leads: 'field',
      act: capture,
    },
    {
      id: 'pour',
      name: 'Pour ideas onto it',
      keys: ['Alt+p'],
      drawing: 'pour',
      leads: 'field',
      when: [mayEdit, one, onMap],
      act: (situation) => workspace.pour({ index: situation.index, topic: theTopic(situation).id }),
    },
    {
      id: 'draft',
      name: 'Draft branches …',
      leads: 'field',
      keys: ['Alt+r'],
      when: [mayEdit, one, onMap],
      act: (situation) => workspace.draft({ index: situation.index, topic: theTopic(situation).id }),
    },
    {
      id: 'template',
      name: 'Insert a template …',
      leads: 'control',
      when: [mayEdit, one],
      act: (situation) => workspace.dialog({ kind: 'template', topic: theTopic(situation).id }),
    },
    {
      id: 'keep-template',
      name: 'Keep as a template …',
      leads: 'field',
      when: [mayEdit, one, withBelow],
      act: (situation) => {
        const { id, text } = theTopic(situation)
        workspace.dialog({
          kind: 'ask',
          title: 'Keep what is below as a template',
          label: 'Name of the template',
          value: text.slice(0, 80),
          act: 'Keep it',
          take: (name) =>
            situation.session.run((records, newIds) => saveTemplate(records, { topic: id, name }, newIds)),
        })
      },
    },
  ]),
  ...acts('gather', 'To place', [
    {
      id: 'to-place',
      name: 'See what is to be placed',
      keys: ['Alt+i'],
      act: () => workspace.openDrawer(useWorkspace.getState().drawer ? null : 'map'),
    },
    {
      id: 'put-away',
      name: 'Take off the map, to be placed later',
      drawing: 'putAway',
      when: [mayEdit, some, noRoot],
      act: ({ session, pane, topics }) => {
        const put = session.run((records, newIds) =>
          putToPlace(records, { topics: topics.map(({ id }) => id), map: pane.map }, newIds),
        )
        if (put) workspace.openDrawer('map')
      },
    },
    {
      id: 'keep-shown',
      name: 'Keep copies of what the filter shows, to be placed',
      when: [mayEdit, filtered],
      act: ({ session, pane }) => {
        const { records } = session
        const shown = [...topicsInOrder(records, pane.map)].filter((topic) => matches(records, topic, pane.filter!))
        const ids = shown.map(({ id }) => id)
        if (session.run((all, newIds) => copyToPlace(all, { topics: ids, map: pane.map }, newIds)))
          workspace.openDrawer('map')
      },
    },
    {
      id: 'sort',
      name: 'Sort what hangs on it …',
      drawing: 'sort',
      leads: 'control',
      when: [mayEdit, one, withBelow],
      act: (situation) => workspace.dialog({ kind: 'sort', what: { branch: theTopic(situation).id } }),
    },
    {
      id: 'sort-ends',
      name: 'Sort copies of all ends of the branch …',
      leads: 'control',
      when: [mayEdit, one, withBelow],
      act: (situation) => {
        const { session, pane } = situation
        const { records } = session
        const ends = [...branch(records, theTopic(situation))].filter(({ id }) => records.children(id).length === 0)
        const topics = ends.map(({ id }) => id)
        const isCopied = session.run((all, newIds) => copyToPlace(all, { topics, map: pane.map }, newIds)) !== null
        return isCopied && workspace.dialog({ kind: 'sort', what: { drawer: pane.map } })
      },
    },
  ]),
  ...acts('gather', 'Carry', [
    { id: 'copy', name: 'Copy', when: [some], act: (situation) => carryFromMenu(situation, false) },
    { id: 'cut', name: 'Cut', when: [mayEdit, some, noRoot], act: (situation) => carryFromMenu(situation, true) },
    {
      id: 'paste',
      name: () => (useWorkspace.getState().carried?.cut ? 'Paste here what was cut' : 'Paste here what was copied'),
      when: [mayEdit, one, carriesSomething],
      act: (situation) => {
        const { carried } = useWorkspace.getState()
        if (carried && !pasteBranches(situation, carried.topics, theTopic(situation).id))
          tell('The map on which that stands is no longer open. Open it and copy again.')
      },
    },
    {
      id: 'duplicate',
      name: 'Duplicate',
      keys: ['Ctrl+d'],
      when: [mayEdit, some, notOnRoot],
      act: (situation) =>
        run(situation, (records, newIds) =>
          duplicateBranches(records, { topics: idsOf(situation), onto: null }, newIds),
        ),
    },
    {
      id: 'delete',
      name: 'Delete',
      keys: ['Delete', 'Backspace'],
      when: [mayEdit, some, noRoot],
      act: (situation) => {
        const { session, topics } = situation
        const cut = linksInto(session.records, topics).length
        run(situation, (records, newIds) => deleteTopics(records, { topics: idsOf(situation) }, newIds))
        if (cut > 0)
          tellHappened(
            `${cut === 1 ? 'A cross-link that led there leads' : `${cut} cross-links that led there lead`} nowhere now.`,
            [{ name: 'Undo', go: () => void session.takeBack('undo') }],
          )
      },
    },
  ]),
]
