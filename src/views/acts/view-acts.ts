import { PLACES, placeAddress } from '../frame/places'
import { tellHappened } from '../workspace/happened'
import { goToRegion } from '../workspace/regions'
import { LARGE_MAP, stageOf } from '../workspace/shown-stages'
import { workspace } from '../workspace/workspace-store'
import { acts, one, onMap, type Situation, theTopic, unless } from './act'

/** Takes back, or does again, the last step on a map that is shown; of one on another map it is told where. */
const takeBack =
  (which: 'undo' | 'redo') =>
  ({ session, index }: Situation): void => {
    const [last] = session.steps(which, 1)
    if (session.undoable[which] || !last?.elsewhere) return void session.takeBack(which)
    const map = last.elsewhere
    tellHappened(`Nothing to ${which} here. The last step was on ${session.titleOf(map)}: ${last.name}`, [
      { name: 'Go there', go: () => workspace.go(index, map, null) },
    ])
  }

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
    // Tab makes topics on a map: by these the keyboard comes to everything around it.
    { id: 'next-part', name: 'To the next part of the window', keys: ['F6'], act: () => goToRegion(1) },
    { id: 'part-before', name: 'To the part before', keys: ['Shift+F6'], act: () => goToRegion(-1) },
    { id: 'walk', name: 'A short walk: what is where', leads: 'control', act: () => workspace.walk({ step: 0 }) },
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
      leads: 'map',
      when: [unless(({ pane }) => pane.face !== 'map', 'It is shown as a map.')],
      act: ({ index }) => workspace.setFace(index, 'map'),
    },
    {
      id: 'face-outline',
      name: 'Show as outline',
      keys: ['Alt+2'],
      leads: 'map',
      when: [unless(({ pane }) => pane.face !== 'outline', 'It is shown as an outline.')],
      act: ({ index }) => workspace.setFace(index, 'outline'),
    },
    {
      id: 'face-page',
      name: 'Show as page',
      keys: ['Alt+3'],
      leads: 'map',
      when: [unless(({ pane }) => pane.face !== 'page', 'It is shown as a page.')],
      act: ({ index }) => workspace.setFace(index, 'page'),
    },
  ]),
  ...acts('view', 'Everywhere', [
    {
      id: 'undo',
      name: 'Undo',
      keys: ['Ctrl+z'],
      when: [unless(({ session }) => session.steps('undo', 1).length > 0, 'There is nothing to undo.')],
      act: takeBack('undo'),
    },
    {
      id: 'redo',
      name: 'Redo',
      keys: ['Ctrl+Shift+z', 'Ctrl+y'],
      when: [unless(({ session }) => session.steps('redo', 1).length > 0, 'There is nothing to redo.')],
      act: takeBack('redo'),
    },
    {
      id: 'find',
      name: 'Find anything',
      keys: ['Ctrl+k'],
      leads: 'field',
      act: () => workspace.dialog({ kind: 'find' }),
    },
    ...PLACES.map(({ place, act }) => ({
      id: `all-${place}`,
      name: act,
      leads: 'page' as const,
      act: ({ session }: Situation) => window.location.assign(placeAddress(session.id, place)),
    })),
    {
      id: 'keep-from-web',
      name: 'Keep pages from the web',
      leads: 'page',
      act: () => window.location.assign('/capture'),
    },
    {
      id: 'settings',
      name: 'Personal settings: reading, light, days, keys',
      leads: 'control',
      act: () => workspace.dialog({ kind: 'settings' }),
    },
    {
      id: 'keys',
      name: 'All keys',
      keys: ['F1', 'Ctrl+/'],
      leads: 'field',
      act: () => workspace.dialog({ kind: 'keys' }),
    },
  ]),
]
