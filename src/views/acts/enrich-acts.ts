import { setTask } from '../../core/commands/set-task'
import { tagTopics } from '../../core/commands/tags'
import { sourcesBelow } from '../../core/network/sources'
import { TaskState } from '../../core/records/dates'
import { TASK_NAMES } from '../../core/scene/signs'
import { tellTrouble } from '../app/api'
import { today } from '../app/when'
import { usePassage } from '../reading/passage'
import { workspace } from '../workspace/workspace-store'
import { acts, idsOf, type Lead, mayEdit, one, onMap, run, type Situation, some, theTopic, unless } from './act'

const sourcesBelowIt = ({ session, topics }: Situation) => (topics[0] ? sourcesBelow(session.records, topics[0]) : [])
const takePassageAs =
  (becomes: 'topic' | 'note') =>
  ({ session }: Situation) =>
    void import('../reading/take-over').then(({ takeOverPassage }) => takeOverPassage(session, becomes), tellTrouble)
const ifMayEdit = ({ session }: Situation): Lead => (session.mayEdit ? 'field' : 'control')
const withPassage = unless(() => usePassage.getState().passage !== null, 'Select words in what you read first.')

/** Acts that put the substance behind the words of a topic, and the marks that tell of it. */
export const ENRICH_ACTS = [
  ...acts('enrich', 'Behind the topic', [
    {
      id: 'note',
      name: 'Write the note',
      keys: ['Alt+n'],
      when: [one],
      leads: ifMayEdit,
      act: () => workspace.openSection('note'),
    },
    {
      id: 'wide-note',
      name: 'Write in the whole window',
      keys: ['Alt+Shift+n'],
      when: [one],
      leads: ifMayEdit,
      act: (situation) => workspace.dialog({ kind: 'note', topic: theTopic(situation).id }),
    },
    {
      id: 'weblink',
      name: 'Add a web link',
      when: [mayEdit, one],
      leads: 'field',
      act: () => workspace.openSection('links', 'weblink'),
    },
    {
      id: 'files',
      name: 'Attach files',
      when: [mayEdit, one],
      leads: 'control',
      act: () => workspace.openSection('files', 'files'),
    },
    {
      id: 'read',
      name: 'Read its sources',
      keys: ['Alt+s'],
      when: [
        one,
        unless(
          (situation) => sourcesBelowIt(situation).length > 0,
          'No file and no web link hangs on it, or below it.',
        ),
      ],
      act: (situation) => {
        const sources = sourcesBelowIt(situation)
        workspace.read(theTopic(situation).id, sources.find(({ read }) => !read) ?? sources[0]!)
      },
    },
    {
      id: 'passage-topic',
      name: 'Take the passage as a topic',
      keys: ['Alt+q'],
      when: [mayEdit, withPassage],
      act: takePassageAs('topic'),
    },
    {
      id: 'passage-note',
      name: 'Take the passage into the note',
      keys: ['Alt+Shift+q'],
      when: [mayEdit, withPassage],
      act: takePassageAs('note'),
    },
    {
      id: 'comment',
      name: 'Comment',
      keys: ['Alt+m'],
      when: [one],
      leads: ({ session, topics }) => (session.mayCommentOn(topics[0]!.place.map) ? 'field' : 'control'),
      act: () => workspace.openSection('comments', 'comment'),
    },
    {
      id: 'dates',
      name: 'Set dates',
      when: [mayEdit, some],
      leads: 'field',
      act: () => workspace.openSection('dates', 'dates'),
    },
    {
      id: 'carry-note',
      name: 'Carry this note on another topic too …',
      leads: 'field',
      when: [mayEdit, one, unless(({ topics }) => topics[0]?.note !== null, 'It has no note.')],
      act: (situation) => workspace.dialog({ kind: 'carry note', topic: theTopic(situation).id }),
    },
  ]),
  ...acts('enrich', 'Marks', [
    {
      id: 'badge',
      name: 'Put a badge on …',
      leads: 'field',
      keys: ['Alt+b'],
      when: [mayEdit, some],
      act: (situation) => workspace.dialog({ kind: 'badge', topics: idsOf(situation), index: null }),
    },
    {
      id: 'tag',
      name: 'Tag …',
      leads: 'field',
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
    {
      id: 'picture',
      name: 'Put a picture on',
      when: [mayEdit, one],
      leads: 'control',
      act: () => workspace.openSection('marks', 'picture'),
    },
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
        run(situation, (records, newIds) =>
          setTask(records, { topics: idsOf(situation), task, today: today() }, newIds),
        ),
    })),
  ),
]
