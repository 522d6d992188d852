import { setTask } from '../../core/commands/set-task'
import { tagTopics } from '../../core/commands/tags'
import { TaskState } from '../../core/records/topic'
import { TASK_NAMES } from '../../core/scene/signs'
import { workspace } from '../workspace/workspace-store'
import { acts, idsOf, mayEdit, one, onMap, run, some, unless } from './act'

/** Acts that put the substance behind the words of a topic, and the marks that tell of it. */
export const ENRICH_ACTS = [
  ...acts('enrich', 'Behind the topic', [
    { id: 'note', name: 'Write the note', keys: ['Alt+n'], when: [one], act: () => workspace.openSection('note') },
    { id: 'weblink', name: 'Add a web link', when: [mayEdit, one], act: () => workspace.openSection('links') },
    { id: 'files', name: 'Attach files', when: [mayEdit, one], act: () => workspace.openSection('files') },
    { id: 'dates', name: 'Set dates', when: [mayEdit, some], act: () => workspace.openSection('dates') },
  ]),
  ...acts('enrich', 'Marks', [
    {
      id: 'badge',
      name: 'Put a badge on …',
      keys: ['Alt+b'],
      when: [mayEdit, some],
      act: (situation) => workspace.dialog({ kind: 'badge', topics: idsOf(situation), index: null }),
    },
    {
      id: 'tag',
      name: 'Tag …',
      keys: ['Alt+t'],
      when: [mayEdit, some],
      act: (situation) =>
        workspace.dialog({
          kind: 'ask',
          title: 'Tag',
          label: 'Name of the tag: a new one is made where there is none',
          value: '',
          act: 'Tag',
          choices: [...situation.session.records.all('tag')].filter((tag) => !tag.trashed).map((tag) => tag.name),
          take: (name) =>
            situation.session.run((records, newIds) => tagTopics(records, { topics: idsOf(situation), name }, newIds)),
        }),
    },
    { id: 'picture', name: 'Put a picture on', when: [mayEdit, one], act: () => workspace.openSection('marks') },
    { id: 'drawings', name: 'Show the drawings', when: [mayEdit, onMap], act: () => workspace.library(true) },
  ]),
  ...acts(
    'enrich',
    'Task',
    [...TaskState.options, null].map((task) => ({
      id: `task-${task ?? 'none'}`,
      name: task ? `It is ${TASK_NAMES[task]}` : 'It is no task',
      when: [
        mayEdit,
        some,
        unless(({ topics }) => topics.some((topic) => topic.task !== task), 'That is what it is already.'),
      ],
      act: (situation) =>
        run(situation, (records, newIds) => setTask(records, { topics: idsOf(situation), task }, newIds)),
    })),
  ),
]
