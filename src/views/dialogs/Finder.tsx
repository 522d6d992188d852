import { SegmentedControl, Stack, Text } from '@mantine/core'
import { type ComponentProps, useMemo, useState } from 'react'
import type { Drawn, LinkEnd } from '../../core/records/crosslink'
import { FileId } from '../../core/records/ids'
import { GROUP_NAMES, perform, type Situation } from '../acts/act'
import { ACTS } from '../acts/acts'
import { tellTrouble } from '../app/api'
import { readFile } from '../reading/read-file'
import type { CollectionSession } from '../sync/collection-session'
import { linkEnds } from '../sync/link-ends'
import { useSession } from '../sync/use-session'
import { sendToMap } from '../workspace/dragging'
import { tellHappened } from '../workspace/happened'
import { situationOf } from '../workspace/situation'
import { visits } from '../workspace/visited'
import { type Dialog, FACES, type Pane, useWorkspace, workspace } from '../workspace/workspace-store'
import { type Doable, FindDialog } from './FindDialog'
import { type Found, SECTION_OF, topicOfFound } from './found'
import { keepLinkForm, linkForm } from './link-form'
import { offersFrom } from './offers'

/** The dialogs in which something is found by typing, and what is done with it. */
export type FinderKind = 'find' | 'beside' | 'link' | 'doorway' | 'send' | 'carry note'
type Asked<Kind extends FinderKind = FinderKind> = Extract<Dialog, { kind: Kind }>

/** Where something is found: the pane that has the keyboard. */
interface Here {
  session: CollectionSession
  panes: readonly Pane[]
  active: number
}

type Finding = Omit<ComponentProps<typeof FindDialog>, 'collection' | 'offers' | 'onClose'>

const FINDINGS: { [Kind in FinderKind]: (here: Here, asked: Asked<Kind>) => Finding } = {
  find: ({ session, active }) => ({
    title: 'Find anything, do anything',
    leadsOn: true,
    doable: doableIn(situationOf(session, active)),
    onTake: (found) => workspace.go(active, found.map, topicOfFound(found)),
    onTakeBehind: ({ kind, id, map, topic, page }) => {
      workspace.go(active, map, topic)
      workspace.openSection(SECTION_OF[kind])
      const file = FileId.safeParse(id).data
      if ((kind === 'file' || kind === 'file text') && file)
        void (session.isOpen(map) ? Promise.resolve() : session.openMap(map))
          .then(() => readFile(session, topic, file, page))
          .catch(tellTrouble)
    },
  }),
  beside: ({ panes }) => ({
    title: 'Open which map beside this one?',
    first: sameMapBeside(panes[0]!),
    onTake: (found) => workspace.openBeside(found.map, 'map', topicOfFound(found)),
  }),
  link: ({ session, panes, active }, { from }) => ({
    title: `Cross-link ${session.records.get('topic', from)?.text ?? ''} with …`,
    exclude: from,
    footer: <LinkForm />,
    onTake: (found) => {
      const isHere = found.map === panes[active]?.map
      void linkEnds(session, { from, to: endOf(found), drawn: linkForm() }).then((isMade) => {
        if (isMade && !isHere)
          tellFarAway(session, active, found, `Cross-linked with ${nameOf(found)} in ${found.mapTitle}`)
      })
    },
  }),
  doorway: ({ session, panes, active }, { topic }) => ({
    title: 'Open which map from here?',
    kinds: ['map'],
    exclude: panes[active]?.map,
    onTake: ({ map }) => void session.server.command('make-doorway', { topic, map }),
  }),
  send: ({ session, panes, active }, { topics, copies }) => ({
    title: copies ? 'Copy to which map?' : 'Move to which map?',
    kinds: ['map'],
    exclude: panes[active]?.map,
    onTake: ({ map }) => void sendToMap(session, topics, map, copies),
  }),
  'carry note': ({ session, active }, { topic }) => ({
    title: 'Which topic carries this note too?',
    kinds: ['topic'],
    exclude: topic,
    onTake: (found) =>
      void session.server.command('carry-note', { of: topic, also: found.id }).then((done) => {
        if (done) tellFarAway(session, active, found, `${nameOf(found)} in ${found.mapTitle} carries this note too`)
      }),
  }),
}

/** Finds what an act of the workspace needs, and closes before it is done. */
export default function Finder({ asked, onClose }: { asked: Asked; onClose(): void }) {
  const session = useSession()
  const { panes, active } = useWorkspace()
  const here = panes[active]?.map
  // What is likely meant is looked up when the dialog opens.
  const offers = useMemo(() => {
    const titles = new Map(session.maps.map(({ id, title }) => [id, title]))
    return here ? offersFrom(session.records, here, titles, visits()) : []
  }, [session, here])
  const finding = FINDINGS[asked.kind] as (here: Here, asked: Asked) => Finding
  const { onTake, onTakeBehind, ...rest } = finding({ session, panes, active }, asked)
  return (
    <FindDialog
      {...rest}
      collection={session.id}
      offers={offers}
      onClose={onClose}
      onTake={(found) => {
        onClose()
        onTake(found)
      }}
      {...(onTakeBehind && {
        onTakeBehind: (found) => {
          onClose()
          onTakeBehind(found)
        },
      })}
    />
  )
}

const nameOf = ({ text }: Found): string => text.slice(0, 60) || 'Untitled'

/** Tells what was done with something that is not in view, with the way there and back. */
const tellFarAway = (session: CollectionSession, active: number, found: Found, words: string): void =>
  tellHappened(words, [
    { name: 'Go there', go: () => workspace.go(active, found.map, topicOfFound(found)) },
    { name: 'Undo', go: () => void session.takeBack('undo') },
  ])

/** What can be done to the selected topics, by name. */
const doableIn = (situation: Situation): Doable[] =>
  ACTS.filter((act) => act.id !== 'find' && act.whyNot(situation) === null).map((act) => ({
    id: act.id,
    name: act.name(situation),
    where: `${GROUP_NAMES[act.group]}, ${act.section}`,
    finds: act.finds,
    run: () => perform(act, situation),
  }))

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

/** How a link that is made is drawn, as it was chosen last. */
function LinkForm() {
  const [drawn, setDrawn] = useState<Drawn>(linkForm)
  return (
    <Stack gap={4} mt="md">
      <Text size="sm" id="link-drawn">
        On the same map it is
      </Text>
      <SegmentedControl
        aria-labelledby="link-drawn"
        value={drawn}
        onChange={(value) => {
          setDrawn(value as Drawn)
          keepLinkForm(value as Drawn)
        }}
        data={[
          { value: 'line', label: 'drawn as a line' },
          { value: 'quiet', label: 'quiet' },
          { value: 'selected', label: 'drawn while selected' },
        ]}
      />
    </Stack>
  )
}
