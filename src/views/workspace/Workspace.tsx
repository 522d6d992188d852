import { ActionIcon, Button, Center, Group, Loader, SegmentedControl, Stack, Text, VisuallyHidden } from '@mantine/core'
import { IconMapOff, IconX } from '@tabler/icons-react'
import { Suspense, useEffect, useRef } from 'react'
import type { Overlap } from '../../core/changes/overlaps'
import type { Evened } from '../../core/commands/even-out-sides'
import { FileId, MapId, TopicId } from '../../core/records/ids'
import { drawerAround } from '../../core/tree/to-place'
import { actByKey, keyName } from '../acts/acts'
import { StripOfActs } from '../acts/StripOfActs'
import { tellTrouble, wordsFor } from '../app/api'
import { halfWrittenBelow } from '../app/half-written'
import { fetchParts, late } from '../app/late'
import { Boundary } from '../app/Mishaps'
import { keepForOffline } from '../app/offline'
import { CaptureKey } from '../capture/CaptureKey'
import { Dialogs } from '../dialogs/Dialogs'
import { wasMerging } from '../merge/reopened'
import { readFile } from '../reading/read-file'
import { TopicSheet } from '../sheet/TopicSheet'
import { pouredOn } from '../stage/PourPanel'
import { rehearse } from '../stage/rehearse'
import { Stage } from '../stage/Stage'
import type { BuriedWords } from '../sync/buried'
import type { CollectionSession } from '../sync/collection-session'
import { SessionProvider, useSession, useStartedSession } from '../sync/use-session'
import { DragWords } from './DragWords'
import { tellHappened } from './happened'
import { goToRegion } from './regions'
import { StatusLine } from './StatusLine'
import { Surroundings } from './Surroundings'
import { situationOf } from './situation'
import { TopBar } from './TopBar'
import { useRecovered } from './use-recovered'
import { takeWalkOffer } from './walk-offer'
import styles from './workspace.module.css'
import { FACES, faceNamed, type Pane, SECTIONS, type Section, useWorkspace, workspace } from './workspace-store'

const Outline = late(() => import('../outline/Outline'))
const Page = late(() => import('../page/Page'))
const ReadingPane = late(() => import('../reading/ReadingPane'))
const ToPlace = late(() => import('../to-place/ToPlace'))
const Walk = late(() => import('./Walk'))

/** The map workspace: one or two panes with what belongs around them. `session` is that of the screen before, if any. */
export function Workspace({
  collection,
  map,
  session: begun,
}: {
  collection: string
  map: string
  session?: CollectionSession
}) {
  const { session, error } = useStartedSession(collection, begun)
  useEffect(rehearse, [])
  if (error)
    return (
      <Center h="100dvh">
        <Stack align="center">
          <Text>{wordsFor(error)}</Text>
          <a href="/">To the beginning</a>
        </Stack>
      </Center>
    )
  if (!session)
    return (
      <Center h="100dvh">
        <Loader aria-label="Opening the collection" />
      </Center>
    )
  return (
    <SessionProvider value={session}>
      <Shell first={MapId.parse(map)} />
    </SessionProvider>
  )
}

/** Tells who wrote a note that somebody else wrote into the same lines, with the way to see both. */
function tellOverlap(session: CollectionSession, overlap: Overlap): void {
  const { kind, id } = overlap
  const topic = kind === 'topic' ? session.records.get('topic', id) : [...session.records.carriersOf(id)][0]
  if (!topic) return
  const words =
    kind === 'topic'
      ? `Somebody else reworded this topic as well: “${overlap.theirs || 'Untitled'}”. Both versions stand in it.`
      : `Somebody else wrote into the same lines of the note of ${topic.text || 'Untitled'}. Both versions stand in it.`
  const go = () => workspace.dialog({ kind: 'overlap', topic: topic.id, overlap })
  tellHappened(words, [{ name: 'Side by side', go }])
}

/** Tells what this person wrote and somebody else has put into the trash, with the ways out of it. */
function tellBuried(session: CollectionSession, { head, by, topics }: BuriedWords): void {
  const nameOf = (topic: TopicId) => `“${session.records.get('topic', topic)?.text.slice(0, 60) || 'Untitled'}”`
  const [first, ...more] = topics
  const what = more.length > 0 ? `${topics.length} topics that you wrote lie` : `${nameOf(first!)} lies`
  const where = session.records.get('topic', head) && head !== first ? ` with ${nameOf(head)}` : ''
  const words = `${what} in the trash${where}: ${by ?? 'somebody else'} put it there.`
  tellHappened(words, [
    { name: 'Bring it back', go: () => void session.server.command('restore-topic', { topic: head }) },
    ...(head === first
      ? []
      : [{ name: 'Put it elsewhere', go: () => workspace.dialog({ kind: 'send', topics, copies: false }) }]),
  ])
}

/** Tells which branches have changed sides, and shows the first of them on request. */
function tellWent(went: Evened['went']): void {
  const [first, ...more] = went
  const name = first!.text.slice(0, 40) || 'A branch'
  const words =
    more.length > 0
      ? `${went.length} branches changed sides, so that both are even.`
      : `${name} went to the ${first!.side}, so that both sides are even.`
  const { active } = useWorkspace.getState()
  tellHappened(words, [{ name: 'Show', go: () => workspace.show(active, first!.topic, true) }])
}

/** What the address of the page says is open. */
function panesInAddress(first: MapId) {
  const parameters = new URL(window.location.href).searchParams
  const topic = TopicId.safeParse(parameters.get('topic')).data ?? null
  const beside = MapId.safeParse(parameters.get('beside')).data
  const panes = [{ map: first, face: faceNamed(parameters.get('face')), topic }]
  const besideTopic = TopicId.safeParse(parameters.get('besideTopic')).data ?? null
  return beside ? [...panes, { map: beside, face: faceNamed(parameters.get('besideFace')), topic: besideTopic }] : panes
}

/** The section of the topic sheet that is to be opened. */
function sectionInAddress(): Section | undefined {
  const named = new URL(window.location.href).searchParams.get('section')
  return SECTIONS.find((section) => section === named)
}

/** The file that the address names to be read, on which topic and at which page. */
function readInAddress() {
  const { searchParams } = new URL(window.location.href)
  const file = FileId.safeParse(searchParams.get('read')).data
  const topic = TopicId.safeParse(searchParams.get('topic')).data
  const page = Number(searchParams.get('page'))
  return file && topic ? { file, topic, page: Number.isSafeInteger(page) && page > 0 ? page : null } : null
}

/** The maps that are to be merged into the first one. */
const mergedInAddress = (): MapId[] =>
  new URL(window.location.href).searchParams.getAll('merge').flatMap((map) => MapId.safeParse(map).data ?? [])

function addressOf(collection: string, panes: readonly Pane[]): string {
  const [first, second] = panes
  const parameters = new URLSearchParams()
  if (first!.face !== 'map') parameters.set('face', first!.face)
  if (second) {
    parameters.set('beside', second.map)
    if (second.face !== 'map') parameters.set('besideFace', second.face)
  }
  const query = parameters.toString()
  return `/c/${collection}/m/${first!.map}${query === '' ? '' : `?${query}`}`
}

function Shell({ first }: { first: MapId }) {
  const session = useSession()
  const { panes, active, leftOpen, sheetOpen, walk, drawer, reading } = useWorkspace()

  useEffect(() => {
    workspace.start(panesInAddress(first))
    const section = sectionInAddress()
    if (section) workspace.openSection(section)
  }, [first])
  useEffect(() => {
    fetchParts()
    keepForOffline()
  }, [])
  useEffect(() => {
    session.onWent = tellWent
    session.shown = () => {
      const { panes: now } = useWorkspace.getState()
      const behind = now.flatMap(({ unfolded }) =>
        unfolded.flatMap((id) => session.records.get('topic', id)?.opensMap ?? []),
      )
      return [...now.map(({ map }) => map), ...behind]
    }
    session.onBuried = (words) => tellBuried(session, words)
    session.onOverlap = (overlap) => tellOverlap(session, overlap)
  }, [session])
  useEffect(() => {
    const back = () => {
      const map = MapId.safeParse(/^\/c\/[^/]+\/m\/([^/]+)$/.exec(window.location.pathname)?.[1]).data
      if (map) workspace.start(panesInAddress(map))
    }
    window.addEventListener('popstate', back)
    return () => window.removeEventListener('popstate', back)
  }, [])

  const wanted = panes.flatMap(({ map }) => (session.isOpen(map) || session.isShut(map) ? [] : map)).join(' ')
  useEffect(() => {
    for (const map of new Set(wanted.split(' ').filter((id) => id !== ''))) session.openMap(map).catch(tellTrouble)
  }, [wanted, session])

  // A file that was asked for by the address, as what search found in it, is read at once.
  const isFirstOpen = session.isOpen(first)
  const toRead = useRef(readInAddress())
  useEffect(() => {
    if (!isFirstOpen || !toRead.current) return
    const { topic, file, page } = toRead.current
    readFile(session, topic, file, page)
    toRead.current = null
  }, [isFirstOpen, session])

  // A map that was just made waits for the words of its root, or for what it should be about.
  const beginning = useRef(new URL(window.location.href).searchParams.get('begin'))
  useEffect(() => {
    const root = isFirstOpen && beginning.current ? session.records.root(first) : undefined
    if (!root) return
    if (beginning.current === 'wish') {
      workspace.edit(0, null)
      workspace.draft({ index: 0, topic: root.id })
    }
    if (root.text !== '' || beginning.current === 'wish') workspace.select(0, [root.id])
    beginning.current = null
  }, [isFirstOpen, first, session])

  // A map that opens has something selected: what is typed next has a place.
  const begun = useRef(new Map<number, number>())
  useEffect(() => {
    for (const [index, { map, show }] of panes.entries()) {
      if (show?.what !== 'start' || begun.current.get(index) === show.request || !session.isOpen(map)) continue
      begun.current.set(index, show.request)
      const root = session.records.root(map)
      if (root) workspace.begin(index, root.id)
      // What was being poured when the page was left goes on.
      for (const id of halfWrittenBelow(pouredOn(session.person))) {
        const topic = session.records.get('topic', id)
        if (topic?.place.map === map && session.mayEditMap(map)) workspace.pour({ index, topic: topic.id })
      }
    }
  })

  useRecovered(session)

  // Who comes from the atlas or the ledger to merge maps is asked how.
  const merged = useRef(mergedInAddress())
  useEffect(() => {
    if (!isFirstOpen) return
    if (merged.current.length > 0) workspace.dialog({ kind: 'merge', target: first, sources: merged.current })
    else if (wasMerging(session.id, first)) workspace.dialog({ kind: 'merge', target: first })
    merged.current = []
  }, [isFirstOpen, first, session])

  // What is found, or linked to, and stands on no map is shown where it lies.
  const shown = session.records.get('topic', panes[active]?.selected[0] ?? null)
  const drawerOf = shown ? drawerAround(session.records, shown) : null
  useEffect(() => {
    if (!drawerOf) return
    workspace.select(active, [])
    workspace.openDrawer(drawerOf === panes[active]?.map ? 'map' : 'collection')
  }, [drawerOf, active, panes])

  useEffect(() => {
    if (isFirstOpen && takeWalkOffer()) workspace.walk({ step: null })
  }, [isFirstOpen])

  const address = panes.length > 0 ? addressOf(session.id, panes) : null
  const title = panes[0] ? session.titleOf(panes[0].map) : ''
  // What the address asked for at first is no step of its own: the way back leads to where one came from.
  const isFirstAddress = useRef(true)
  useEffect(() => {
    if (!address) return
    if (address !== window.location.pathname + window.location.search)
      window.history[isFirstAddress.current ? 'replaceState' : 'pushState'](null, '', address)
    isFirstAddress.current = false
  }, [address])
  useEffect(() => {
    if (title !== '') document.title = `${title} · Folvet`
  }, [title])

  // Keys that work wherever the focus is, as long as nobody is typing.
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as Element
      const key = keyName(event)
      // Out of a field beside the map the finder is reached as well; what is half written stays there.
      const isTaken =
        key === 'Ctrl+k'
          ? target.closest('[role="dialog"], [role="menu"]')
          : target.closest('input, textarea, [contenteditable="true"], [role="dialog"], [role="menu"]')
      if (event.defaultPrevented || (isTaken && !target.matches('[data-on-its-way]'))) return
      if (!/^(Ctrl|Alt)\+|^(Shift\+)?F\d+$/.test(key) || !useWorkspace.getState().panes[active]) return
      if (actByKey(key, situationOf(session, active))) event.preventDefault()
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [session, active])

  // Where a column lies over the map, it goes when the keyboard goes to what it covers.
  useEffect(() => {
    const focus = ({ target }: FocusEvent) => {
      if (!(target instanceof Element) || target.closest('[role="dialog"], [role="menu"], [data-on-its-way]')) return
      const { left, top, width, height } = target.getBoundingClientRect()
      const over = document.elementFromPoint(left + width / 2, top + height / 2)?.closest('[data-column]')
      if (!over || over.contains(target)) return
      if (over.getAttribute('data-column') === 'sheet') workspace.openSheet(false)
      else workspace.openLeft(false)
    }
    document.addEventListener('focusin', focus)
    return () => document.removeEventListener('focusin', focus)
  }, [])

  // Round the parts of the window from everywhere, also out of a field.
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key !== 'F6' || event.ctrlKey || event.altKey || document.querySelector('[role="dialog"][aria-modal]'))
        return
      event.preventDefault()
      event.stopPropagation()
      goToRegion(event.shiftKey ? -1 : 1)
    }
    window.addEventListener('keydown', press, true)
    return () => window.removeEventListener('keydown', press, true)
  }, [])

  if (panes.length === 0) return null
  return (
    <div className={styles.shell}>
      <TopBar />
      {leftOpen && <Surroundings />}
      <main className={styles.panes} data-reading={reading !== null || undefined}>
        <VisuallyHidden component="h1">{title}</VisuallyHidden>
        <VisuallyHidden id="tree-keys">
          Enter adds a topic, on a map Tab one below it. Letters are written behind its words. Home, End and Ctrl with
          the up and down arrows follow the tree. F6 goes on to the next part of the window, F1 tells all keys.
        </VisuallyHidden>
        {panes.map((pane, index) =>
          // What is read stands in the place of the other pane.
          reading && index !== active ? null : (
            <section
              key={index === 0 ? 'first' : 'second'}
              className={styles.pane}
              data-active={panes.length > 1 && index === active}
              aria-label={`${session.titleOf(pane.map)}, ${pane.face}`}
            >
              {panes.length > 1 && !reading && <PaneHead pane={pane} index={index} />}
              {session.records.get('map', pane.map)?.trashed && <InTrash map={pane.map} index={index} />}
              {session.isOpen(pane.map) ? (
                <Boundary key={pane.face} what={`The ${pane.face}`}>
                  <Suspense>
                    {pane.face === 'map' ? (
                      <Stage pane={pane} index={index} />
                    ) : pane.face === 'outline' ? (
                      <Outline pane={pane} index={index} />
                    ) : (
                      <Page pane={pane} index={index} />
                    )}
                  </Suspense>
                </Boundary>
              ) : session.isShut(pane.map) ? (
                <NotOpen collection={session.id} />
              ) : session.isMissed(pane.map) ? (
                <Center flex={1} p="md">
                  <Text ta="center">
                    This map was not opened in this browser before. It is shown when the server can be reached again.
                  </Text>
                </Center>
              ) : (
                <Center flex={1}>
                  <Loader aria-label="Opening the map" />
                </Center>
              )}
            </section>
          ),
        )}
        {reading && (
          <Boundary what="What is read">
            <Suspense>
              <ReadingPane reading={reading} />
            </Suspense>
          </Boundary>
        )}
      </main>
      {drawer && (
        <Boundary what="What is to be placed">
          <Suspense>
            <ToPlace key={panes[active]!.map} scope={drawer} />
          </Suspense>
        </Boundary>
      )}
      <StripOfActs />
      {sheetOpen && panes[active]!.selected.length > 0 && (
        <Boundary what="The topic sheet">
          <TopicSheet />
        </Boundary>
      )}
      <StatusLine />
      <Dialogs />
      <DragWords />
      <CaptureKey />
      {walk && (
        <Suspense>
          <Walk step={walk.step} />
        </Suspense>
      )}
    </div>
  )
}

/** In place of a map of which nothing may be shown. */
function NotOpen({ collection }: { collection: string }) {
  return (
    <Center flex={1}>
      <Stack align="center" maw={360} p="md">
        <IconMapOff size={32} aria-hidden />
        <Text ta="center">This map is not open to you, or it is gone. Ask whoever owns the collection.</Text>
        <Group>
          <Button variant="default" onClick={() => window.history.back()}>
            Back
          </Button>
          <Button variant="light" component="a" href={`/c/${collection}`}>
            All maps
          </Button>
        </Group>
      </Stack>
    </Center>
  )
}

/** Over a map that lies in the trash. */
function InTrash({ map, index }: { map: MapId; index: number }) {
  const session = useSession()
  const { homeMap } = session.collection
  return (
    <Group className={styles.inTrash} gap="sm">
      <Text size="sm">This map lies in the trash.</Text>
      {session.mayEditAll && (
        <Button size="compact-sm" onClick={() => void session.server.command('restore-map', { map })}>
          Take it out
        </Button>
      )}
      {homeMap && (
        <Button size="compact-sm" variant="default" onClick={() => workspace.go(index, homeMap, null)}>
          To {session.titleOf(homeMap)}
        </Button>
      )}
    </Group>
  )
}

function PaneHead({ pane, index }: { pane: Pane; index: number }) {
  const session = useSession()
  return (
    <div className={styles.paneHead}>
      <strong>{session.titleOf(pane.map)}</strong>
      <SegmentedControl
        size="xs"
        data={FACES}
        value={pane.face}
        aria-label={`Face of ${session.titleOf(pane.map)}`}
        onChange={(face) => workspace.setFace(index, faceNamed(face))}
      />
      <ActionIcon
        variant="subtle"
        color="gray"
        aria-label={`Close the pane with ${session.titleOf(pane.map)}`}
        onClick={() => workspace.closePane(index)}
      >
        <IconX size={16} />
      </ActionIcon>
    </div>
  )
}
