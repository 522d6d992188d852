import { type JSX, Suspense } from 'react'
import { late } from '../app/late'
import { Boundary } from '../app/Mishaps'
import { type Dialog, useWorkspace, workspace } from '../workspace/workspace-store'
import type { FinderKind } from './Finder'

const AskDialog = late(() => import('./AskDialog'), 'soon')
const BadgePicker = late(() => import('../badges/BadgePicker'), 'soon')
const EnclosureDialog = late(() => import('./EnclosureDialog'), 'soon')
const Finder = late(() => import('./Finder'), 'soon')
const GatherDialog = late(() => import('../search/GatherDialog'))
const InsertTemplate = late(() => import('../beginning/InsertTemplate'))
const MapSettings = late(() => import('./MapSettings'))
const KeysDialog = late(() => import('./KeysDialog'))
const MergeScreen = late(() => import('../merge/MergeScreen'))
const SortingTable = late(() => import('../sorting/SortingTable'))
const WideNote = late(() => import('../note-editor/WideNote'))
const OverlapDialog = late(() => import('../note-editor/OverlapDialog'))
const SplitReview = late(() => import('../split/SplitReview'))

type Drawn<Kind extends Dialog['kind']> = (asked: Extract<Dialog, { kind: Kind }>, onClose: () => void) => JSX.Element

/** Keyed, so that one that follows another of its kind begins anew. */
const finder = (asked: Extract<Dialog, { kind: FinderKind }>, onClose: () => void) => (
  <Finder key={asked.kind} asked={asked} onClose={onClose} />
)

const DIALOGS: { [Kind in Dialog['kind']]: Drawn<Kind> } = {
  find: finder,
  beside: finder,
  link: finder,
  doorway: finder,
  send: finder,
  'carry note': finder,
  ask: (asked, onClose) => <AskDialog key={asked.title} asked={asked} onClose={onClose} />,
  badge: ({ topics, index }, onClose) => <BadgePicker topics={topics} index={index} onClose={onClose} />,
  enclosure: ({ enclosure }, onClose) => <EnclosureDialog enclosure={enclosure} onClose={onClose} />,
  gather: ({ topic }, onClose) => <GatherDialog topic={topic} onClose={onClose} />,
  keys: (_, onClose) => <KeysDialog onClose={onClose} />,
  settings: (_, onClose) => <MapSettings onClose={onClose} />,
  merge: ({ target, sources }, onClose) => <MergeScreen target={target} chosen={sources} onClose={onClose} />,
  note: ({ topic }, onClose) => <WideNote topic={topic} onClose={onClose} />,
  overlap: ({ topic, overlap }, onClose) => <OverlapDialog topic={topic} overlap={overlap} onClose={onClose} />,
  sort: ({ what }, onClose) => <SortingTable what={what} onClose={onClose} />,
  split: ({ map }, onClose) => <SplitReview map={map} onClose={onClose} />,
  template: ({ topic }, onClose) => <InsertTemplate topic={topic} onClose={onClose} />,
}

const close = () => workspace.dialog(null)

/** The dialog that is asked for, if any. */
export function Dialogs() {
  const dialog = useWorkspace((state) => state.dialog)
  if (!dialog) return null
  const drawn = DIALOGS[dialog.kind] as Drawn<Dialog['kind']>
  return (
    <Boundary key={dialog.kind} what="This dialog">
      <Suspense>{drawn(dialog, close)}</Suspense>
    </Boundary>
  )
}
