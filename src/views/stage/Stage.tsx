import { Suspense, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { boundsOf, type TopicBox } from '../../core/layout/boxes'
import { sightsOf } from '../../core/layout/view'
import { composeChild, composeLoose, composeSibling } from '../acts/compose'
import { tell } from '../app/api'
import { late } from '../app/late'
import { usePersonalSettings } from '../app/personal'
import { useSession } from '../sync/use-session'
import { clipboardHandlers } from '../workspace/clipboard'
import { beginDrag, giveUpDrag, useDragged } from '../workspace/dragging'
import { LARGE_MAP, setZoom, showStage } from '../workspace/shown-stages'
import { situationOf } from '../workspace/situation'
import { TextField } from '../workspace/TextField'
import { backToFace } from '../workspace/take-focus'
import { handleTreeKey } from '../workspace/tree-keys'
import { type Pane, useWorkspace, workspace } from '../workspace/workspace-store'
import { topicTowards } from './arrows'
import { BranchTrail } from './BranchTrail'
import { type ChosenConnector, connectorAt } from './connector-at'
import { DoorwayPeek, PeekFrame, usePeek } from './DoorwayPeek'
import { boxAt, isSeenFromFar } from './far-view'
import { fieldOver } from './field-over'
import { rememberLook } from './last-views'
import { OriginLegend, OriginMarks } from './OriginMarks'
import { Overview } from './Overview'
import { PlusButtons } from './PlusButtons'
import { PourPanel } from './PourPanel'
import { SceneLayer } from './SceneLayer'
import { StageCanvas } from './StageCanvas'
import type { AskedOnSurface } from './SurfaceMenu'
import styles from './stage.module.css'
import { TopicHandles } from './TopicHandles'
import { useBand } from './use-band'
import { dropHandlers } from './use-drop'
import { useOutOfSight } from './use-out-of-sight'
import { useScene } from './use-scene'
import { useShow } from './use-show'
import { useTouch } from './use-touch'
import { FollowView, useView, type View } from './use-view'

const ConnectorMenu = late(() => import('./ConnectorMenu'), 'soon')
const DraftPanel = late(() => import('../draft/DraftPanel'))
const FilesPeek = late(() => import('./FilesPeek'))
const LinksPeek = late(() => import('./LinksPeek'))
const NotePeek = late(() => import('./NotePeek'))
const SurfaceMenu = late(() => import('./SurfaceMenu'), 'soon')
const TopicMenu = late(() => import('../acts/TopicMenu'), 'soon')
const PictureLibrary = late(() => import('../pictures/PictureLibrary'))

/** What lies on the surface: a press there is meant for it, not for the surface. */
const ON_SURFACE = '[data-topic], [data-enclosure], [data-crosslink], [data-taken], button, textarea'

/** The id of the topic on which something happens. */
const topicOf = ({ target }: { target: EventTarget }) =>
  (target as Element).closest('[data-topic]')?.getAttribute('data-topic') ?? undefined

/** The face *Map*: the drawn map, to look at and to work on. */
export function Stage({ pane, index }: { pane: Pane; index: number }) {
  const session = useSession()
  const { scene, behind, faded } = useScene(session, pane)
  const { layout } = scene
  const held = session.isOpen(pane.map)
  const container = useRef<HTMLDivElement>(null)
  const ground = useRef<HTMLDivElement>(null)
  const tree = useRef<HTMLDivElement>(null)
  const picture = useRef<SVGSVGElement>(null)
  const control = useView(
    container,
    picture,
    ground,
    () => {
      const chosen = layout.byKey.of(pane.selected.at(-1) ?? '')
      return { of: sightsOf(layout, scene.bounds), dear: chosen ? [boundsOf([chosen, ...chosen.below]), chosen] : [] }
    },
    (at) => {
      if (!pane.only && held) rememberLook(pane.map, at)
      setZoom(index, at.k)
    },
  )
  const { view, rested, transform, moves, pointAt, panBy } = control
  const { pouring, drafting, libraryOpen, overviewOpen, active } = useWorkspace()
  const [menu, setMenu] = useState<{ x: number; y: number } | null>(null)
  const [asked, setAsked] = useState<{ chosen: ChosenConnector; x: number; y: number } | null>(null)
  const [surface, setSurface] = useState<AskedOnSurface | null>(null)
  const [complete, setComplete] = useState<View | null>(null)
  const inPage = useRef<ReadonlySet<object>>(new Set())
  /** Where on the map and on which topic the first press of a double click was: it opens or closes the sheet, and the map moves. */
  const pressed = useRef<{ x: number; y: number; topic: string | undefined } | null>(null)
  const [hovered, setHovered] = useState<string | null>(null)
  const plusSigns = usePersonalSettings((settings) => settings.plusSigns)
  const isDragging = useDragged(({ dragged }) => dragged !== null)
  const dropTopic = useDragged(({ dragged: at }) => (at?.over?.index === index ? at.over.target.box.topic.id : null))
  const dropZone = useDragged(({ dragged: at }) => (at?.over?.index === index ? at.over.target.zone : null))
  const band = useBand(index, layout, pointAt)
  useEffect(() => {
    if (container.current) showStage(index, { element: container.current, layout, pointAt, panBy })
    return () => showStage(index, null)
  }, [index, layout, pointAt, panBy])
  useShow(pane, index, held, scene, control, tree)
  useOutOfSight(session, pane, index, layout)
  const isBlank = held && layout.boxes.length === 1 && layout.boxes[0]!.topic.text === '' && session.mayEdit
  // A map on which nothing stands yet waits for its first words.
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked when a map opens, not again when its writing is given up.
  useEffect(() => {
    if (isBlank && pane.show?.what === 'start') workspace.edit(index, { topic: layout.boxes[0]!.topic.id, text: null })
  }, [isBlank, pane.show])

  const selected = useMemo(() => new Set<string>(pane.selected), [pane.selected])
  const lastSelected = pane.selected.at(-1)
  const focusStage = useCallback(() => backToFace(tree.current), [])
  const situation = () => situationOf(session, index)
  const drawn = useDeferredValue(rested)
  const isFar = useMemo(() => isSeenFromFar(layout, view), [layout, view])
  const restsFar = useMemo(() => isSeenFromFar(layout, drawn), [layout, drawn])
  const { editing } = pane
  const editedBox = editing ? layout.byKey.of(editing.topic) : undefined
  const handled = pane.selected.length === 1 ? layout.byKey.of(pane.selected[0]!) : undefined
  const plusBox = layout.byKey.of(hovered ?? lastSelected ?? '')
  const drop = useMemo(
    () => (dropTopic && dropZone ? { topic: dropTopic, zone: dropZone } : null),
    [dropTopic, dropZone],
  )
  // Panels over the map each have a side of their own.
  const pours = pouring?.index === index
  const drafts = drafting?.index === index
  const growsRight = layout.byKey.of(drafting?.topic ?? '')?.growsLeft === false
  const draftSide = pours || growsRight ? 'left' : 'right'
  const librarySide = drafts ? (draftSide === 'left' ? 'right' : 'left') : pours ? 'left' : 'right'
  const openMenu = (topic: string, at: { x: number; y: number }) => {
    const box = layout.byKey.of(topic)
    if (!box) return
    if (!selected.has(topic)) workspace.select(index, [box.topic.id])
    setMenu(at)
  }
  const touch = useTouch(openMenu)
  const peek = usePeek((topic) => layout.byKey.of(topic))

  const onTopicPointerDown = useCallback(
    (event: React.PointerEvent, box: TopicBox) => {
      if (event.button === 1) return
      focusStage()
      const { pane: now } = situationOf(session, index)
      const id = box.topic.id
      const isSelected = now.selected.includes(id)
      if (event.button === 2) {
        // Before the menu is asked for: what stands beside the map must not come or go between the two.
        if (!isSelected) workspace.select(index, [id])
        return
      }
      // A finger selects by a tap; before that it moves the map, and what is selected it drags.
      if (event.pointerType === 'touch' && !isSelected) return
      if (event.shiftKey || event.ctrlKey || event.metaKey)
        workspace.select(index, isSelected ? now.selected.filter((other) => other !== id) : [...now.selected, id])
      else {
        if (!isSelected) workspace.select(index, [id])
        beginDrag(session, { index, pressed: box }, event)
      }
    },
    [session, index, focusStage],
  )

  return (
    <div
      ref={container}
      className={styles.stage}
      data-stage={index}
      style={{ colorScheme: behind.scheme ?? undefined }}
      onPointerDown={(event) => {
        if ((event.target as Element).closest(ON_SURFACE)) return
        if (event.shiftKey && event.button === 0) {
          event.stopPropagation()
          band.begin(event)
        } else workspace.select(index, [])
      }}
      onMouseDownCapture={(event) => {
        if (event.detail === 1) pressed.current = { ...pointAt(event), topic: topicOf(event) }
      }}
      {...touch}
      onClick={(event) => {
        const tapped = topicOf(event)
        const isTouch = event.nativeEvent instanceof PointerEvent && event.nativeEvent.pointerType === 'touch'
        if (tapped && isTouch) workspace.select(index, [layout.byKey.of(tapped)!.topic.id])
        if (event.shiftKey || (event.target as Element).closest(ON_SURFACE)) return
        const point = pointAt(event)
        const { k } = transform.current
        const far = isFar ? boxAt(layout.boxes, point.x, point.y, 6 / k) : null
        if (far) workspace.select(index, [far.topic.id])
        const found = session.mayEdit && !isFar ? connectorAt(scene.connectors, point, k) : null
        if (found) setAsked({ chosen: found, x: event.clientX, y: event.clientY })
      }}
      onDoubleClick={(event) => {
        const now = pointAt(event)
        const { x, y, topic } = pressed.current ?? { ...now, topic: topicOf(event) }
        const { k } = transform.current
        const box = topic ? layout.byKey.of(topic) : undefined
        const far = isFar ? boxAt(layout.boxes, x, y, 6 / k) : null
        if (far) workspace.show(index, far.topic.id)
        else if (box && session.mayEdit) workspace.edit(index, { topic: box.topic.id, text: null })
        else if (!box && session.mayEdit && !(event.target as Element).closest(ON_SURFACE)) {
          if (pane.only) tell('Only one branch is shown. Show the whole map to write a loose topic beside it.')
          else {
            // What is begun stands below the pointer.
            panBy((now.x - x) * k, (now.y - y) * k)
            composeLoose(situation(), Math.round(x), Math.round(y))
          }
        }
      }}
      onContextMenu={(event) => {
        const target = event.target as Element
        const at = { x: event.clientX, y: event.clientY }
        const topic = topicOf(event)
        if (!topic && target.closest('[data-crosslink], [data-taken], button, textarea')) return
        event.preventDefault()
        if (topic) return openMenu(topic, at)
        const point = pointAt(event)
        const enclosure = target.closest('[data-enclosure]')?.getAttribute('data-enclosure') ?? null
        const { k } = transform.current
        const found = session.mayEdit && !isFar && !enclosure ? connectorAt(scene.connectors, point, k) : null
        if (found) setAsked({ chosen: found, ...at })
        else setSurface({ window: at, map: point, enclosure })
      }}
      onPointerOver={(event) => {
        peek.follow(event)
        setHovered(topicOf(event) ?? hovered)
      }}
      onPointerLeave={() => {
        peek.end()
        setHovered(null)
      }}
      {...dropHandlers(situation, layout, pointAt)}
    >
      <div
        ref={ground}
        className={`${styles.ground} ${behind.name}`}
        style={{
          backgroundColor: behind.tone ?? undefined,
          ...(behind.picture ? { '--backdrop-picture': `url("${behind.picture}")` } : {}),
        }}
      />
      <StageCanvas
        scene={scene}
        view={view}
        far={isFar}
        needed={isFar || complete !== view}
        faded={faded}
        scheme={behind.scheme}
        inPage={inPage}
        transform={transform}
        moves={moves}
      />
      <div
        ref={tree}
        className={styles.tree}
        tabIndex={0}
        role="tree"
        aria-label={`Map ${session.titleOf(pane.map)}`}
        aria-multiselectable
        aria-describedby="tree-keys"
        aria-activedescendant={lastSelected ? `topic-${index}-${layout.byKey.of(lastSelected)?.key ?? ''}` : undefined}
        onFocus={() => workspace.activate(index)}
        onKeyDown={(event) => {
          if (isDragging && event.key === 'Escape') giveUpDrag()
          else if (event.key === 'ContextMenu' || (event.key === 'F10' && event.shiftKey)) {
            event.preventDefault()
            const box = layout.byKey.of(lastSelected ?? '')
            const at = container.current!.getBoundingClientRect()
            if (box)
              setMenu({
                x: at.left + transform.current.applyX(box.x + 20),
                y: at.top + transform.current.applyY(box.y + box.height),
              })
          } else handleTreeKey(event, situation(), (from, key) => topicTowards(layout, from, key))
        }}
        {...clipboardHandlers(situation, pane)}
      >
        <svg ref={picture} className={`scene ${styles.svg}`} role="none">
          <g role="none" opacity={isFar && !restsFar ? 0 : undefined}>
            <SceneLayer
              scene={scene}
              view={drawn}
              moves={moves}
              far={restsFar}
              pane={index}
              selected={selected}
              faded={faded}
              edited={editedBox?.topic.id ?? null}
              chosen={asked?.chosen ?? null}
              drop={drop}
              onPointerDown={onTopicPointerDown}
              inPage={inPage}
              onComplete={setComplete}
            />
            {!restsFar && <OriginMarks map={pane.map} boxes={layout.boxes} />}
          </g>
        </svg>
      </div>
      {plusSigns && plusBox && !pane.editing && !isDragging && !isFar && session.mayEdit && (
        <FollowView moves={moves} transform={transform}>
          {(at) => (
            <PlusButtons
              box={plusBox}
              near={scene.near}
              transform={at}
              onChild={() => composeChild(situation(), plusBox.topic)}
              onSibling={() => composeSibling(situation(), plusBox.topic)}
              onLink={(event, line) => beginDrag(session, { link: plusBox.topic.id, line }, event)}
            />
          )}
        </FollowView>
      )}
      {editing && editedBox && (
        <FollowView moves={moves} transform={transform}>
          {(at) => (
            <TextField
              key={editing.topic}
              session={session}
              index={index}
              editing={editing}
              onEnd={focusStage}
              style={fieldOver(editedBox, at)}
            />
          )}
        </FollowView>
      )}
      {band.shown && <div className={styles.band} style={band.shown} />}
      {pouring && pours && <PourPanel session={session} index={index} topic={pouring.topic} onEnd={focusStage} />}
      {peek.peeked && !isDragging && !editing && container.current && (
        <PeekFrame
          peeked={peek.peeked}
          room={{ width: container.current.clientWidth, height: container.current.clientHeight }}
        >
          <Suspense>
            {peek.peeked.what === 'links' ? (
              <LinksPeek session={session} topic={peek.peeked.box.topic} index={index} onEnd={peek.end} />
            ) : peek.peeked.what === 'note' ? (
              <NotePeek session={session} topic={peek.peeked.box.topic} />
            ) : peek.peeked.what === 'files' ? (
              <FilesPeek session={session} topic={peek.peeked.box.topic} />
            ) : (
              <DoorwayPeek
                session={session}
                peeked={peek.peeked}
                index={index}
                isUnfolded={pane.unfolded.includes(peek.peeked.box.topic.id)}
                onEnd={peek.end}
              />
            )}
          </Suspense>
        </PeekFrame>
      )}
      <OriginLegend map={pane.map} />
      {pane.only && <BranchTrail session={session} index={index} only={pane.only} />}
      {layout.boxes.length <= 1 && session.mayEdit && held && !drafts && (
        <p className={styles.hint}>
          {isBlank && pane.editing
            ? 'Write what this map is about, then press Enter.'
            : 'Press Enter and write: Enter keeps a topic and begins the next, Tab begins one below it, Shift + Tab one out, Esc ends. Or paste a list.'}
        </p>
      )}
      {handled && !pane.editing && !isDragging && !isFar && session.mayEdit && (
        <FollowView moves={moves} transform={transform}>
          {(at) => <TopicHandles session={session} box={handled} transform={at} />}
        </FollowView>
      )}
      {overviewOpen && layout.boxes.length > LARGE_MAP && (
        <Overview
          layout={layout}
          scheme={behind.scheme}
          container={container}
          transform={transform}
          moves={moves}
          lookAt={control.lookAt}
        />
      )}
      {drafting && drafts && (
        <Suspense>
          <DraftPanel session={session} index={index} topic={drafting.topic} side={draftSide} onEnd={focusStage} />
        </Suspense>
      )}
      {libraryOpen && index === active && (
        <Suspense>
          <PictureLibrary side={librarySide} />
        </Suspense>
      )}
      {asked && (
        <Suspense>
          <ConnectorMenu
            chosen={asked.chosen}
            at={asked}
            situation={situation()}
            onClose={() => {
              setAsked(null)
              focusStage()
            }}
          />
        </Suspense>
      )}
      {surface && (
        <Suspense>
          <SurfaceMenu
            asked={surface}
            situation={situation()}
            onClose={() => {
              setSurface(null)
              focusStage()
            }}
          />
        </Suspense>
      )}
      {menu && (
        <Suspense>
          <TopicMenu at={menu} situation={situation()} onClose={() => setMenu(null)} onDone={focusStage} />
        </Suspense>
      )}
    </div>
  )
}
