import { create } from 'zustand'
import type { Overlap } from '../../core/changes/overlaps'
import type { OutlineForm } from '../../core/formats/outline-text'
import type { Source } from '../../core/network/sources'
import type { EnclosureId, MapId, TopicId } from '../../core/records/ids'
import type { Filter } from '../../core/tree/filter'
import { Calm, useCalm } from '../app/calm'
import { lastColumns, rememberColumns } from './last-columns'
import type { Section } from './sheet-sections'
import { noteVisit } from './visited'

export { SECTIONS, type Section } from './sheet-sections'

/** The groups of acts, in the order of the work. */
export const GROUPS = ['gather', 'shape', 'enrich', 'dress', 'network'] as const
export type Group = (typeof GROUPS)[number]

export type Face = 'map' | 'outline' | 'page'

/** The three faces of a map, in the order in which they are offered; always the same list, so that nothing is drawn anew for it. */
export const FACES: { value: Face; label: string }[] = [
  { value: 'map', label: 'Map' },
  { value: 'outline', label: 'Outline' },
  { value: 'page', label: 'Page' },
]

/** The face of this name; the map where there is none. */
export const faceNamed = (name: string | null): Face => FACES.find(({ value }) => value === name)?.value ?? 'map'

/** One of the one or two panes in the middle: a face of a map. */
export interface Pane {
  map: MapId
  face: Face
  selected: readonly TopicId[]
  /**
   * The topic whose text is being written, and the text to begin with: null keeps what is there. A new one has come `from` the topic
   * that was selected before.
   */
  editing: { topic: TopicId; text: string | null; from?: TopicId } | null
  /** The branch that is shown alone; null shows the whole map. */
  only: TopicId | null
  /** The form in which the outline is written in as text; null shows it as a list of topics. */
  written: OutlineForm | null
  /** Doorways below which the maps that they open are shown in place. */
  unfolded: readonly TopicId[]
  /** What stands out while the rest fades; null shows everything alike. */
  filter: Filter | null
  /** Asks the stage to bring something into view; the number tells one request from the next. */
  show: { what: Sight; branch: boolean; request: number } | null
}

/** What a stage can be asked to show: a topic, what is selected if it is not seen, or what this says of the map and of the view. */
type Sight = TopicId | 'all' | 'start' | 'selected' | 'seen' | 'width' | 'back' | 'in' | 'out' | 'full'

export type Dialog =
  | { kind: 'find' }
  | { kind: 'link'; from: TopicId }
  | { kind: 'merge'; target: MapId; sources?: readonly MapId[] }
  | { kind: 'split'; map: MapId }
  | { kind: 'sort'; what: Sortable }
  | { kind: 'doorway'; topic: TopicId }
  | { kind: 'send'; topics: readonly TopicId[]; copies: boolean }
  | { kind: 'keys' }
  | { kind: 'settings' }
  | { kind: 'beside' }
  | { kind: 'template'; topic: TopicId }
  | { kind: 'gather'; topic: TopicId }
  | { kind: 'carry note'; topic: TopicId }
  /** A note in which two people wrote into the same lines. */
  | { kind: 'overlap'; topic: TopicId; overlap: Overlap }
  /** The note of a topic in the whole window. */
  | { kind: 'note'; topic: TopicId }
  /** A new badge for topics, or, with an index, another one in the place of a badge. */
  | { kind: 'badge'; topics: readonly TopicId[]; index: number | null }
  | { kind: 'enclosure'; enclosure: EnclosureId }
  /** Asks for one line of text. An empty answer is handed on too. */
  | {
      kind: 'ask'
      title: string
      label: string
      value: string
      act: string
      choices?: readonly string[]
      take(text: string): void
    }

/** What can be put on the sorting table: what is still to be placed on a map, or what hangs on a topic. */
export type Sortable = { drawer: MapId } | { branch: TopicId }

/** What in the topic sheet an act brings the keyboard to: the element with this as its `data-leads`. */
export type SheetField = 'note' | 'weblink' | 'files' | 'picture' | 'look' | 'dates' | 'comment'

/** What is read beside the map: a source, of those in the branch of a topic. */
export interface Reading {
  scope: TopicId
  source: Source
  /** The page to begin with; null where none was asked for. */
  page: number | null
  request: number
  /** Whether the surroundings were put away for it, and come back when it is closed. */
  hidesLeft: boolean
}

interface Workspace {
  panes: readonly Pane[]
  active: number
  leftOpen: boolean
  /** Whether the topic sheet stands beside the map while a topic is selected. */
  sheetOpen: boolean
  /** The sections of the topic sheet that are unfolded. */
  sections: readonly Section[]
  /** The section of the topic sheet that was asked for last, and which of its fields gets the keyboard; null once that is met. */
  section: { name: Section; field: SheetField | null; request: number } | null
  /** What stands beside the map to be read, if anything. */
  reading: Reading | null
  dialog: Dialog | null
  /** Whose drawer of what is to be placed is open, of the map in the active pane or of the collection, if any. */
  drawer: 'map' | 'collection' | null
  /** The topic onto which ideas are being poured, and the pane in which that happens. */
  pouring: { index: number; topic: TopicId } | null
  /** The topic for which branches are being drafted, and the pane in which that happens. */
  drafting: { index: number; topic: TopicId } | null
  /** The topic whose look was copied. */
  carriedLook: TopicId | null
  /** Branches that were copied or cut, for pasting with all that belongs to them. */
  carried: { topics: readonly TopicId[]; cut: boolean } | null
  /** The group of acts whose panel is open, and whether it stays open when something was done. */
  group: Group | null
  groupPinned: boolean
  /** The stop of the walk at which one is, null while it is only offered; null while nobody walks. */
  walk: { step: number | null } | null
  /** Whether the drawings are shown. */
  libraryOpen: boolean
  /** Whether large maps have a small picture of all of them in the corner. */
  overviewOpen: boolean
}

let requests = 0

const paneOn = (map: MapId, face: Face, topic: TopicId | null): Pane => ({
  map,
  face,
  selected: topic ? [topic] : [],
  editing: null,
  only: null,
  written: null,
  unfolded: [],
  filter: null,
  show: { what: topic ?? 'start', branch: false, request: ++requests },
})

/** Where the columns lie over the map as drawers, one at a time; the same width stands in workspace.module.css. */
const drawers = typeof window === 'undefined' ? null : window.matchMedia('(max-width: 1099px)')
/** How much of the window the topic sheet covers at its right, in px: as a drawer it lies over the map. As in workspace.module.css. */
export const coveredBySheet = (): number =>
  getState().sheetOpen && hasDrawers() ? Math.min(340, window.innerWidth * 0.9) : 0

/** From so wide a window on the surroundings, the map, what is read and the topic sheet stand side by side, in px. */
const ROOM_FOR_ALL = 1_700
const hasDrawers = () => drawers?.matches ?? false

const columns = lastColumns()

export const useWorkspace = create<Workspace>(() => ({
  panes: [],
  active: 0,
  leftOpen: !hasDrawers() && (columns?.leftOpen ?? true),
  sheetOpen: !hasDrawers() && (columns?.sheetOpen ?? false),
  sections: columns?.sections ?? ['note', 'links', 'files'],
  section: null,
  reading: null,
  dialog: null,
  drawer: null,
  pouring: null,
  drafting: null,
  carriedLook: null,
  carried: null,
  group: null,
  groupPinned: false,
  libraryOpen: false,
  walk: null,
  overviewOpen: true,
}))

const { setState, getState } = useWorkspace
useWorkspace.subscribe(({ leftOpen, sheetOpen, sections }, before) => {
  if (leftOpen === before.leftOpen && sheetOpen === before.sheetOpen && sections === before.sections) return
  if (!hasDrawers()) rememberColumns({ leftOpen, sheetOpen, sections })
})

// Columns that stood beside the map would cover it all at once.
drawers?.addEventListener('change', ({ matches }) => setState({ leftOpen: !matches, sheetOpen: false }))

const calm = new Calm(useWorkspace.subscribe, useWorkspace.getState)
/** The workspace for what stands beside the map; see `useCalmSession`. */
export const useCalmWorkspace = (): Workspace => useCalm(calm)

function changePane(index: number, change: Partial<Pane>): void {
  setState((state) => ({ panes: state.panes.map((pane, i) => (i === index ? { ...pane, ...change } : pane)) }))
}

/** The panes with what is selected in one of them; another face of the same map beside it follows. */
function withSelected(panes: readonly Pane[], index: number, selected: readonly TopicId[]): Pane[] {
  const here = panes[index]
  return panes.map((pane, i) =>
    i === index || (pane.map === here?.map && pane.face !== here.face)
      ? { ...pane, selected, editing: pane.editing && selected.includes(pane.editing.topic) ? pane.editing : null }
      : pane,
  )
}

/** Everything that alters the workspace. */
export const workspace = {
  start(panes: { map: MapId; face: Face; topic: TopicId | null }[]): void {
    for (const { map, topic } of panes) noteVisit({ map, topic })
    setState({ panes: panes.map(({ map, face, topic }) => paneOn(map, face, topic)), active: 0 })
  },
  activate(index: number): void {
    if (getState().active !== index) setState({ active: index })
  },
  /** Selects the topic at which a map begins, as long as nothing was selected there. */
  begin(index: number, topic: TopicId): void {
    const pane = getState().panes[index]
    if (pane?.selected.length === 0) changePane(index, { selected: [topic] })
  },
  select(index: number, selected: readonly TopicId[]): void {
    setState(({ panes }) => ({ active: index, panes: withSelected(panes, index, selected) }))
  },
  edit(index: number, editing: Pane['editing']): void {
    if (editing) setState(({ panes }) => ({ panes: withSelected(panes, index, [editing.topic]) }))
    changePane(index, { editing })
  },
  show(index: number, what: Exclude<Sight, 'start'>, branch = false): void {
    changePane(index, { show: { what, branch, request: ++requests } })
  },
  /** Shows one branch alone, or, with null, the whole map again. */
  showOnly(index: number, only: TopicId | null): void {
    const before = getState().panes[index]?.only
    changePane(index, {
      only,
      editing: null,
      show: { what: only ?? before ?? 'all', branch: false, request: ++requests },
    })
  },
  writeOutline(index: number, written: OutlineForm | null): void {
    changePane(index, { written, editing: null })
  },
  /** Shows the map behind a doorway below it, or puts it away again. */
  unfoldDoorway(index: number, doorway: TopicId, isUnfolded: boolean): void {
    const before = getState().panes[index]?.unfolded ?? []
    const others = before.filter((id) => id !== doorway)
    changePane(index, {
      unfolded: isUnfolded ? [...others, doorway] : others,
      selected: [doorway],
      show: { what: doorway, branch: false, request: ++requests },
    })
  },
  filter(index: number, filter: Filter | null): void {
    changePane(index, { filter })
  },
  setFace(index: number, face: Face): void {
    const pane = getState().panes[index]
    if (pane)
      changePane(index, {
        face,
        editing: null,
        show: { what: pane.selected[0] ?? 'all', branch: false, request: ++requests },
      })
  },
  /** Opens a map in a pane, at a topic where one is given. */
  go(index: number, map: MapId, topic: TopicId | null): void {
    const pane = getState().panes[index]
    if (!pane) return
    if (pane.map === map)
      changePane(
        index,
        topic
          ? { selected: [topic], editing: null, show: { what: topic, branch: false, request: ++requests } }
          : { show: { what: 'all', branch: false, request: ++requests } },
      )
    else changePane(index, paneOn(map, pane.face, topic))
    noteVisit({ map, topic })
    setState({ active: index })
  },
  openBeside(map: MapId, face: Face, topic: TopicId | null = null): void {
    noteVisit({ map, topic })
    setState((state) => ({ panes: [state.panes[0]!, paneOn(map, face, topic)], active: 1 }))
  },
  closePane(index: number): void {
    setState((state) => ({ panes: state.panes.filter((_, i) => i !== index), active: 0 }))
  },
  openLeft(leftOpen: boolean): void {
    setState({ leftOpen, ...(leftOpen && hasDrawers() ? { sheetOpen: false } : {}) })
  },
  openSheet(sheetOpen: boolean): void {
    setState({ sheetOpen, ...(sheetOpen && hasDrawers() ? { leftOpen: false } : {}) })
  },
  /** Opens a section of the topic sheet, with the keyboard in one of its fields if one is named. */
  openSection(name: Section, field: SheetField | null = name === 'note' ? 'note' : null): void {
    workspace.openSheet(true)
    setState(({ sections }) => ({
      sections: sections.includes(name) ? sections : [...sections, name],
      section: { name, field, request: ++requests },
    }))
  },
  /** Tells that a section was asked for, and shown. */
  metSection(request: number): void {
    setState(({ section }) => ({ section: section?.request === request ? null : section }))
  },
  /** Opens a source beside the map, at a page where one is given. */
  read(scope: TopicId, source: Source, page: number | null = null): void {
    setState(({ reading, leftOpen }) => ({
      reading: {
        scope,
        source,
        page,
        request: ++requests,
        hidesLeft: reading?.hidesLeft ?? (leftOpen && window.innerWidth < ROOM_FOR_ALL),
      },
      // Where there is no room for all of it the surroundings make way.
      ...(window.innerWidth < ROOM_FOR_ALL ? { leftOpen: false } : {}),
      ...(hasDrawers() ? { sheetOpen: false } : {}),
    }))
  },
  stopReading: () =>
    setState(({ reading, leftOpen }) => ({
      reading: null,
      leftOpen: leftOpen || (reading?.hidesLeft === true && !hasDrawers()),
    })),
  unfoldSections: (sections: readonly Section[]) => setState({ sections }),
  dialog: (dialog: Dialog | null) => setState({ dialog }),
  openDrawer: (drawer: Workspace['drawer']) => setState({ drawer }),
  pour: (pouring: Workspace['pouring']) => setState({ pouring }),
  draft: (drafting: Workspace['drafting']) => setState({ drafting }),
  carry: (carried: Workspace['carried']) => setState({ carried }),
  carryLook: (carriedLook: TopicId) => setState({ carriedLook }),
  openGroup: (group: Group | null) => setState({ group }),
  pinGroup: (groupPinned: boolean) => setState({ groupPinned }),
  toggleOverview: () => setState((state) => ({ overviewOpen: !state.overviewOpen })),
  walk: (walk: Workspace['walk']) => setState({ walk }),
  library: (libraryOpen: boolean) => setState({ libraryOpen }),
}
