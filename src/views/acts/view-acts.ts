import { SCREENS_TO_GO_TO, screenAddress } from '../app/collection-screens'
import { LARGE_MAP, stageOf } from '../workspace/shown-stages'
import { workspace } from '../workspace/workspace-store'
import { acts, one, onMap, type Situation, theTopic, unless } from './act'

/** Acts that alter what is seen, and none of the maps; and undoing. */
export const VIEW_ACTS = [
  ...acts('view', 'See', [
    { id: 'fit', name: 'Fit the map', keys: ['Alt+f'], act: ({ index }) => workspace.show(index, 'all') },
    {
      id: 'centre',
      name: 'Centre on this topic',
      keys: ['Alt+c'],
      when: [one],
      act: (situation) => workspace.show(situation.index, theTopic(situation).id),
    },
    {
      id: 'fit-width',
      name: 'Fit the width of the map',
      keys: ['Alt+Shift+f'],
      when: [onMap],
      act: ({ index }) => workspace.show(index, 'width'),
    },
    {
      id: 'fit-branch',
      name: 'Fit this branch',
      keys: ['Alt+g'],
      when: [one, onMap],
      act: (situation) => workspace.show(situation.index, theTopic(situation).id, true),
    },
    {
      id: 'view-back',
      name: 'Back to where I was',
      keys: ['Alt+z'],
      when: [onMap],
      act: ({ index }) => workspace.show(index, 'back'),
    },
    // Tab makes topics here: without this the keyboard could not leave the map.
    {
      id: 'leave-map',
      name: 'To the top of the window',
      keys: ['F6'],
      act: () => document.querySelector<HTMLElement>('header button, header a')?.focus(),
    },
    { id: 'walk', name: 'A short walk: what is where', act: () => workspace.walk({ step: 0 }) },
    {
      id: 'overview',
      name: 'The overview of large maps',
      keys: ['Alt+v'],
      when: [
        unless(
          ({ index }) => (stageOf(index)?.layout.boxes.length ?? 0) > LARGE_MAP,
          'This map is small enough without.',
        ),
      ],
      act: () => workspace.toggleOverview(),
    },
    {
      id: 'face-map',
      name: 'Show as map',
      keys: ['Alt+1'],
      when: [unless(({ pane }) => pane.face !== 'map', 'It is shown as a map.')],
      act: ({ index }) => workspace.setFace(index, 'map'),
    },
    {
      id: 'face-outline',
      name: 'Show as outline',
      keys: ['Alt+2'],
      when: [unless(({ pane }) => pane.face !== 'outline', 'It is shown as an outline.')],
      act: ({ index }) => workspace.setFace(index, 'outline'),
    },
    {
      id: 'face-page',
      name: 'Show as page',
      keys: ['Alt+3'],
      when: [unless(({ pane }) => pane.face !== 'page', 'It is shown as a page.')],
      act: ({ index }) => workspace.setFace(index, 'page'),
    },
  ]),
  ...acts('view', 'Everywhere', [
    {
      id: 'undo',
      name: 'Undo',
      keys: ['Ctrl+z'],
      when: [unless(({ session }) => session.undoable.undo !== null, 'There is nothing to undo.')],
      act: ({ session }) => void session.takeBack('undo'),
    },
    {
      id: 'redo',
      name: 'Redo',
      keys: ['Ctrl+Shift+z', 'Ctrl+y'],
      when: [unless(({ session }) => session.undoable.redo !== null, 'There is nothing to redo.')],
      act: ({ session }) => void session.takeBack('redo'),
    },
    { id: 'find', name: 'Find anything', keys: ['Ctrl+k'], act: () => workspace.dialog({ kind: 'find' }) },
    ...SCREENS_TO_GO_TO.map(({ page, act }) => ({
      id: `all-${page}`,
      name: act,
      act: ({ session }: Situation) => window.location.assign(screenAddress(session.id, page)),
    })),
    { id: 'keep-from-web', name: 'Keep pages from the web', act: () => window.location.assign('/capture') },
    { id: 'keys', name: 'All keys', keys: ['F1', 'Ctrl+/'], act: () => workspace.dialog({ kind: 'keys' }) },
  ]),
]
