import { Autocomplete, Button, SegmentedControl, Stack, Text, TextInput } from '@mantine/core'
import { lazy, Suspense, useMemo, useState } from 'react'
import { addCrosslink } from '../../core/commands/crosslinks'
import type { Drawn, LinkEnd } from '../../core/records/crosslink'
import { FileId, type TopicId } from '../../core/records/ids'
import { GROUP_NAMES, type Situation } from '../acts/act'
import { ACTS } from '../acts/acts'
import { tellTrouble } from '../app/api'
import { Modal } from '../app/Modal'
import { readFile } from '../reading/read-file'
import { useSession } from '../sync/use-session'
import { sendToMap } from '../workspace/dragging'
import { tellHappened } from '../workspace/happened'
import { situationOf } from '../workspace/situation'
import { visits } from '../workspace/visited'
import { type Dialog, FACES, type Pane, useWorkspace, workspace } from '../workspace/workspace-store'
import { type Doable, FindDialog } from './FindDialog'
import { type Found, SECTION_OF, topicOfFound } from './found'
import { keepLinkForm, linkForm } from './link-form'
import { type Offer, offersFrom } from './offers'

const BadgePicker = lazy(() => import('../badges/BadgePicker'))
const EnclosureDialog = lazy(() => import('./EnclosureDialog'))
const GatherDialog = lazy(() => import('../search/GatherDialog'))
const InsertTemplate = lazy(() => import('../beginning/InsertTemplate'))
const KeysDialog = lazy(() => import('./KeysDialog'))
const MergeScreen = lazy(() => import('../merge/MergeScreen'))
const SortingTable = lazy(() => import('../sorting/SortingTable'))
const WideNote = lazy(() => import('../note-editor/WideNote'))
const OverlapDialog = lazy(() => import('../note-editor/OverlapDialog'))
const SplitReview = lazy(() => import('../split/SplitReview'))

/** What can be done to the selected topics, by name. */
const doableIn = (situation: Situation): Doable[] =>
  ACTS.filter((act) => act.id !== 'find' && act.whyNot(situation) === null).map((act) => ({
    id: act.id,
    name: act.name(situation),
    where: `${GROUP_NAMES[act.group]}, ${act.section}`,
    run: () => act.act(situation),
  }))

/** The dialog that is asked for, if any. */
export function Dialogs() {
  const session = useSession()
  const { dialog, active, panes } = useWorkspace()
  const close = () => workspace.dialog(null)
  const offers = useOffers(dialog?.kind ?? null)
  switch (dialog?.kind) {
    case 'find':
      return (
        <FindDialog
          key={dialog.kind}
          collection={session.id}
          title="Find anything, do anything"
          leadsOn
          doable={doableIn(situationOf(session, active))}
          offers={offers}
          onClose={close}
          onTake={(found) => {
            close()
            workspace.go(active, found.map, topicOfFound(found))
          }}
          onTakeBehind={({ kind, id, map, topic, page }) => {
            close()
            workspace.go(active, map, topic)
            workspace.openSection(SECTION_OF[kind])
            const file = FileId.safeParse(id).data
            if ((kind === 'file' || kind === 'file text') && file)
              void (session.isOpen(map) ? Promise.resolve() : session.openMap(map))
                .then(() => readFile(session, topic, file, page))
                .catch(tellTrouble)
          }}
        />
      )
    case 'beside':
      return (
        <FindDialog
          key={dialog.kind}
          collection={session.id}
          title="Open which map beside this one?"
          onClose={close}
          first={sameMapBeside(panes[0]!)}
          offers={offers}
          onTake={(found) => {
            close()
            workspace.openBeside(found.map, 'map', topicOfFound(found))
          }}
        />
      )
    case 'link':
      return <LinkDialog from={dialog.from} onClose={close} />
    case 'merge':
      return (
        <Suspense>
          <MergeScreen target={dialog.target} chosen={dialog.sources} onClose={close} />
        </Suspense>
      )
    case 'split':
      return (
        <Suspense>
          <SplitReview map={dialog.map} onClose={close} />
        </Suspense>
      )
    case 'doorway':
      return (
        <FindDialog
          key={dialog.kind}
          collection={session.id}
          title="Open which map from here?"
          kinds={['map']}
          exclude={panes[active]?.map}
          offers={offers}
          onClose={close}
          onTake={(found) => {
            close()
            void session.command('make-doorway', { topic: dialog.topic, map: found.map })
          }}
        />
      )
    case 'send':
      return (
        <FindDialog
          key={dialog.kind}
          collection={session.id}
          title={dialog.copies ? 'Copy to which map?' : 'Move to which map?'}
          kinds={['map']}
          exclude={panes[active]?.map}
          offers={offers}
          onClose={close}
          onTake={(found) => {
            close()
            void sendToMap(session, dialog.topics, found.map, dialog.copies)
          }}
        />
      )
    case 'sort':
      return (
        <Suspense>
          <SortingTable what={dialog.what} onClose={close} />
        </Suspense>
      )
    case 'template':
      return (
        <Suspense>
          <InsertTemplate topic={dialog.topic} onClose={close} />
        </Suspense>
      )
    case 'badge':
      return (
        <Suspense>
          <BadgePicker topics={dialog.topics} index={dialog.index} onClose={close} />
        </Suspense>
      )
    case 'enclosure':
      return (
        <Suspense>
          <EnclosureDialog enclosure={dialog.enclosure} onClose={close} />
        </Suspense>
      )
    case 'carry note':
      return (
        <FindDialog
          key={dialog.kind}
          collection={session.id}
          title="Which topic carries this note too?"
          kinds={['topic']}
          exclude={dialog.topic}
          offers={offers}
          onClose={close}
          onTake={(found) => {
            close()
            void session.command('carry-note', { of: dialog.topic, also: found.id }).then((done) => {
              if (!done) return
              tellHappened(`${found.text.slice(0, 60) || 'Untitled'} in ${found.mapTitle} carries this note too`, [
                { name: 'Go there', go: () => workspace.go(active, found.map, topicOfFound(found)) },
                { name: 'Undo', go: () => void session.takeBack('undo') },
              ])
            })
          }}
        />
      )
    case 'gather':
      return (
        <Suspense>
          <GatherDialog topic={dialog.topic} onClose={close} />
        </Suspense>
      )
    case 'overlap':
      return (
        <Suspense>
          <OverlapDialog topic={dialog.topic} overlap={dialog.overlap} onClose={close} />
        </Suspense>
      )
    case 'note':
      return (
        <Suspense>
          <WideNote topic={dialog.topic} onClose={close} />
        </Suspense>
      )
    case 'ask':
      return <AskDialog key={dialog.title} asked={dialog} onClose={close} />
    case 'keys':
      return (
        <Suspense>
          <KeysDialog onClose={close} />
        </Suspense>
      )
    default:
      return null
  }
}

const FINDING: ReadonlySet<string> = new Set(['find', 'beside', 'link', 'doorway', 'send', 'carry note'])

/** What is likely meant where something is to be found; looked up when the dialog opens. */
function useOffers(asked: Dialog['kind'] | null): readonly Offer[] {
  const session = useSession()
  const { panes, active } = useWorkspace()
  const here = panes[active]?.map
  return useMemo(() => {
    if (!here || asked === null || !FINDING.has(asked)) return []
    return offersFrom(session.records, here, new Map(session.maps.map(({ id, title }) => [id, title])), visits())
  }, [session, here, asked])
}

/** The map itself in its other faces, as the first things that can stand beside it. */
function sameMapBeside({ map, face }: Pane): Doable[] {
  return FACES.filter(({ value }) => value !== face).map(({ value, label }) => ({
    id: `same-map-${value}`,
    name: `This map as ${label.toLowerCase()}`,
    where: 'the same, seen in two ways',
    run: () => workspace.openBeside(map, value),
  }))
}

/** What was found, as the end of a link. */
function endOf({ kind, id }: Found): LinkEnd {
  if (kind === 'topic') return { kind, id }
  return kind === 'map' ? { kind, id } : { kind, id }
}

function LinkDialog({ from, onClose }: { from: TopicId; onClose(): void }) {
  const session = useSession()
  const { panes, active } = useWorkspace()
  const [drawn, setDrawn] = useState<Drawn>(linkForm)
  const name = session.records.get('topic', from)?.text ?? ''
  return (
    <FindDialog
      collection={session.id}
      title={`Cross-link ${name} with …`}
      exclude={from}
      offers={useOffers('link')}
      onClose={onClose}
      onTake={(found) => {
        onClose()
        keepLinkForm(drawn)
        const isHere = found.map === panes[active]?.map
        const made = session.run((records, newIds) => addCrosslink(records, { from, to: endOf(found), drawn }, newIds))
        if (made && !isHere)
          tellHappened(`Cross-linked with ${found.text.slice(0, 60) || 'Untitled'} in ${found.mapTitle}`, [
            { name: 'Go there', go: () => workspace.go(active, found.map, topicOfFound(found)) },
            { name: 'Undo', go: () => void session.takeBack('undo') },
          ])
      }}
      footer={
        <Stack gap={4} mt="md">
          <Text size="sm" id="link-drawn">
            On the same map it is
          </Text>
          <SegmentedControl
            aria-labelledby="link-drawn"
            value={drawn}
            onChange={(value) => setDrawn(value as Drawn)}
            data={[
              { value: 'line', label: 'drawn as a line' },
              { value: 'quiet', label: 'quiet' },
              { value: 'selected', label: 'drawn while selected' },
            ]}
          />
        </Stack>
      }
    />
  )
}

function AskDialog({ asked, onClose }: { asked: Extract<Dialog, { kind: 'ask' }>; onClose(): void }) {
  return (
    <Modal opened onClose={onClose} title={asked.title}>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          onClose()
          asked.take(String(new FormData(event.currentTarget).get('text') ?? ''))
        }}
      >
        <Stack>
          {asked.choices ? (
            <Autocomplete name="text" label={asked.label} data={[...asked.choices]} maxLength={500} data-autofocus />
          ) : (
            <TextInput name="text" label={asked.label} defaultValue={asked.value} maxLength={500} data-autofocus />
          )}
          <Button type="submit">{asked.act}</Button>
        </Stack>
      </form>
    </Modal>
  )
}
