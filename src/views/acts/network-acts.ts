import { crosslinkOfBranch } from '../../core/commands/crosslink-forms'
import { tieTopics } from '../../core/commands/crosslinks'
import { makeChildMap } from '../../core/commands/doorways'
import { splitOff, splitOffRow } from '../../core/commands/split-off'
import { parentOf } from '../../core/records/place'
import { branch } from '../../core/tree/walk'
import { tellTrouble } from '../app/api'
import { tellHappened } from '../workspace/happened'
import { stageOf } from '../workspace/shown-stages'
import { workspace } from '../workspace/workspace-store'
import {
  acts,
  hanging,
  idsOf,
  mayEdit,
  noRoot,
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

const isDoorway = unless(({ topics }) => Boolean(topics[0]?.opensMap), 'It opens no map.')
const isNoDoorway = unless(({ topics }) => !topics[0]?.opensMap, 'It opens a map already.')

const isElsewhere = unless(({ topics, pane }) => topics[0]?.place.map !== pane.map, 'It stands in its own place.')

const siblings = unless(({ topics }) => {
  const [parent, ...others] = topics.map(parentOf)
  return parent !== null && others.every((other) => other === parent)
}, 'They hang on different topics.')

/** The selected siblings as they stand below their parent, whatever was selected first. */
function inOrder(situation: Situation) {
  const chosen = new Set<string>(idsOf(situation))
  const parent = parentOf(theTopic(situation)) ?? ''
  return situation.session.records.children(parent).flatMap(({ id }) => (chosen.has(id) ? id : []))
}

function splitOffTopic({ session, topics, index }: Situation): void {
  const { id, text } = topics[0]!
  const moved = [...branch(session.records, topics[0]!)].length - 1
  if (!session.run((records, newIds) => splitOff(records, { topic: id }, newIds))) return
  const map = session.records.get('topic', id)?.opensMap
  if (!map) return
  tellHappened(`Split off: ${text.slice(0, 60) || 'Untitled'}, ${moved === 1 ? '1 topic' : `${moved} topics`}`, [
    { name: 'Open', go: () => workspace.go(index, map, null) },
    { name: 'Undo', go: () => void session.takeBack('undo') },
  ])
}

/** Shows the map behind a doorway in place, where it can be worked on as well; it is held from then on. */
function unfoldHere({ session, pane, index, topics }: Situation): void {
  const { id, opensMap } = topics[0]!
  if (!opensMap) return
  if (!session.isOpen(opensMap)) session.openMap(opensMap).catch(tellTrouble)
  workspace.unfoldDoorway(index, id, !pane.unfolded.includes(id))
}

/** Acts on how maps and topics hang together. */
export const NETWORK_ACTS = [
  ...acts('network', 'Child maps', [
    {
      id: 'open',
      name: 'Open the map behind it',
      keys: ['Ctrl+Enter'],
      drawing: 'open',
      leads: 'map',
      when: [one, isDoorway],
      act: (situation) => workspace.go(situation.index, theTopic(situation).opensMap!, null),
    },
    {
      id: 'split-off',
      name: 'Split off into a child map',
      keys: ['Alt+d'],
      drawing: 'split',
      when: [mayEdit, one, notOnRoot, isNoDoorway, withBelow],
      act: splitOffTopic,
    },
    {
      id: 'child-map-of-copies',
      name: 'Make a child map with copies of what is below',
      drawing: 'splitCopies',
      when: [mayEdit, one, notOnRoot, isNoDoorway, withBelow],
      act: (situation) =>
        run(situation, (records, newIds) =>
          makeChildMap(records, { topic: theTopic(situation).id, with: 'copies' }, newIds),
        ),
    },
    {
      id: 'empty-child-map',
      name: 'Make an empty child map',
      drawing: 'splitEmpty',
      leads: 'map',
      when: [mayEdit, one, notOnRoot, isNoDoorway],
      act: (situation) => {
        const { session, index } = situation
        const topic = theTopic(situation).id
        if (!session.run((records, newIds) => makeChildMap(records, { topic, with: 'nothing' }, newIds))) return false
        const map = session.records.get('topic', topic)?.opensMap
        return map ? workspace.go(index, map, null) : false
      },
    },
    {
      id: 'split-off-row',
      name: 'Make one child map of these topics …',
      drawing: 'splitRow',
      leads: 'field',
      when: [mayEdit, several, notOnRoot, siblings],
      act: (situation) =>
        workspace.dialog({
          kind: 'ask',
          title: 'One child map for these topics',
          label: 'Its name, and that of the topic that opens it',
          value: '',
          act: 'Split off',
          take: (name) =>
            run(situation, (records, newIds) =>
              splitOffRow(records, { row: inOrder(situation), name: name.trim() || 'Untitled' }, newIds),
            ),
        }),
    },
    {
      id: 'split-review',
      name: 'See what could be split off …',
      drawing: 'review',
      leads: 'control',
      act: ({ pane }) => workspace.dialog({ kind: 'split', map: pane.map }),
    },
    {
      id: 'bring-back',
      name: 'Bring the child map back',
      drawing: 'back',
      when: [mayEdit, one, notOnRoot, isDoorway],
      act: (situation) => void situation.session.server.command('bring-back', { topic: theTopic(situation).id }),
    },
  ]),
  ...acts('network', 'Doorways', [
    {
      id: 'unfold-doorway',
      name: ({ pane, topics }) =>
        pane.unfolded.includes(topics[0]?.id ?? ('' as never))
          ? 'Fold the map behind it away again'
          : 'Unfold the map behind it here',
      drawing: 'unfoldMap',
      when: [one, isDoorway, onMap],
      act: unfoldHere,
    },
    {
      id: 'make-doorway',
      name: 'Open a map that is there …',
      leads: 'field',
      drawing: 'open',
      when: [mayEdit, one, isNoDoorway],
      act: (situation) => workspace.dialog({ kind: 'doorway', topic: theTopic(situation).id }),
    },
    {
      id: 'home-doorway',
      name: 'Reach its map through this doorway',
      when: [mayEdit, one, isDoorway],
      act: (situation) =>
        void situation.session.server.command('choose-home-doorway', { topic: theTopic(situation).id }),
    },
    {
      id: 'close-doorway',
      name: 'Open nothing any more',
      when: [mayEdit, one, isDoorway],
      act: (situation) => void situation.session.server.command('close-doorway', { topic: theTopic(situation).id }),
    },
  ]),
  ...acts('network', 'Across maps', [
    {
      id: 'link',
      name: 'Cross-link with …',
      keys: ['Alt+l'],
      drawing: 'link',
      leads: 'field',
      when: [mayEdit, one],
      act: (situation) => workspace.dialog({ kind: 'link', from: theTopic(situation).id }),
    },
    {
      id: 'tie',
      name: 'Tie these topics to one another',
      drawing: 'tie',
      when: [mayEdit, several],
      act: (situation) => run(situation, (records, newIds) => tieTopics(records, { topics: idsOf(situation) }, newIds)),
    },
    {
      id: 'link-instead',
      name: 'Cross-link it instead of hanging it there',
      when: [mayEdit, one, hanging],
      act: (situation) => {
        const topic = theTopic(situation).id
        const box = stageOf(situation.index)?.layout.byKey.of(topic)
        const at = box ? { x: Math.round(box.x + 40), y: Math.round(box.y) } : { x: 300, y: 0 }
        run(situation, (records, newIds) => crosslinkOfBranch(records, { topic, at }, newIds))
      },
    },
    {
      id: 'send-to-map',
      name: 'Move to another map …',
      drawing: 'send',
      leads: 'field',
      when: [mayEdit, some, noRoot],
      act: (situation) => workspace.dialog({ kind: 'send', topics: idsOf(situation), copies: false }),
    },
    {
      id: 'copy-to-map',
      name: 'Copy to another map …',
      leads: 'field',
      when: [mayEdit, some, noRoot],
      act: (situation) => workspace.dialog({ kind: 'send', topics: idsOf(situation), copies: true }),
    },
    {
      id: 'gather',
      name: 'Gather a list below it …',
      drawing: 'gather',
      leads: 'field',
      when: [mayEdit, one],
      act: (situation) => workspace.dialog({ kind: 'gather', topic: theTopic(situation).id }),
    },
    {
      id: 'own-place',
      name: 'Go to its own place',
      leads: 'map',
      when: [one, isElsewhere],
      act: (situation) => {
        const { id, place } = theTopic(situation)
        workspace.go(situation.index, place.map, id)
      },
    },
    {
      id: 'links',
      name: 'See all links of the collection',
      leads: 'page',
      drawing: 'link',
      act: ({ session }) => window.location.assign(`/c/${session.id}/links`),
    },
    {
      id: 'merge',
      name: ({ session }) => (session.mayEdit ? 'Merge other maps into this one …' : 'Compare this map with others …'),
      drawing: 'merge',
      leads: 'control',
      when: [onRoot],
      act: ({ pane }) => workspace.dialog({ kind: 'merge', target: pane.map }),
    },
    {
      id: 'beside',
      name: 'Open a map beside this one …',
      drawing: 'panes',
      leads: 'field',
      act: () => workspace.dialog({ kind: 'beside' }),
    },
  ]),
]
