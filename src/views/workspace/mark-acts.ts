import { copyLook } from '../../core/commands/looks'
import { setTask } from '../../core/commands/set-task'
import { tagTopics } from '../../core/commands/tags'
import { TaskState } from '../../core/records/topic'
import { TASK_NAMES } from '../../core/scene/signs'
import { type Act, editable, onlySelected, plainly, type Situation } from './act'
import { useWorkspace, workspace } from './workspace-store'

const ids = ({ topics }: Situation) => topics.map(({ id }) => id)

const taskActs = [...TaskState.options, null].map(
  (task): Act => ({
    id: `task-${task ?? 'none'}`,
    name: plainly(task ? `It is ${TASK_NAMES[task]}` : 'It is no task'),
    keys: [],
    group: 'mark',
    submenu: 'Task',
    when: (situation) => editable(situation) && situation.topics.some((topic) => topic.task !== task),
    act: (situation) => {
      situation.session.run((records, newIds) => setTask(records, { topics: ids(situation), task }, newIds))
    },
  }),
)

/** Acts on what marks topics: badges, tags, tasks, pictures, looks. */
export const MARK_ACTS: readonly Act[] = [
  {
    id: 'badge',
    name: plainly('Put a badge on …'),
    keys: ['Alt+b'],
    group: 'mark',
    when: editable,
    act: (situation) => workspace.dialog({ kind: 'badge', topics: ids(situation), index: null }),
  },
  {
    id: 'tag',
    name: plainly('Tag …'),
    keys: ['Alt+t'],
    group: 'mark',
    when: editable,
    act: (situation) =>
      workspace.dialog({
        kind: 'ask',
        title: 'Tag',
        label: 'Name of the tag: a new one is made where there is none',
        value: '',
        act: 'Tag',
        choices: [...situation.session.records.all('tag')].filter((tag) => !tag.trashed).map((tag) => tag.name),
        take: (name) =>
          situation.session.run((records, newIds) => tagTopics(records, { topics: ids(situation), name }, newIds)),
      }),
  },
  ...taskActs,
  {
    id: 'picture',
    name: plainly('Put a picture on'),
    keys: [],
    group: 'mark',
    when: (situation) => editable(situation) && onlySelected(situation) !== null,
    act: () => workspace.openSection('marks'),
  },
  {
    id: 'drawings',
    name: plainly('Show the drawings'),
    keys: [],
    group: 'view',
    when: ({ session, pane }) => session.mayEdit && pane.face === 'map',
    act: () => workspace.library(true),
  },
  {
    id: 'look',
    name: plainly('Change its look'),
    keys: [],
    group: 'mark',
    submenu: 'Look',
    when: editable,
    act: () => workspace.openSection('look'),
  },
  {
    id: 'look-copy',
    name: plainly('Copy its look'),
    keys: ['Ctrl+Alt+c'],
    group: 'mark',
    submenu: 'Look',
    when: (situation) => editable(situation) && onlySelected(situation) !== null,
    act: (situation) => workspace.carryLook(onlySelected(situation)!.id),
  },
  {
    id: 'look-put',
    name: (situation) => `Put the look of ${carriedName(situation) ?? 'the copied topic'} on`,
    keys: ['Ctrl+Alt+v'],
    group: 'mark',
    submenu: 'Look',
    when: (situation) => editable(situation) && carriedName(situation) !== null,
    act: (situation) => {
      const from = useWorkspace.getState().carriedLook!
      situation.session.run((records, newIds) => copyLook(records, { from, to: ids(situation) }, newIds))
    },
  },
]

/** The text of the topic whose look was copied, where it is still there and held. */
function carriedName({ session }: Situation): string | null {
  const topic = session.records.get('topic', useWorkspace.getState().carriedLook)
  return topic && !topic.trashed ? topic.text.slice(0, 30) : null
}
