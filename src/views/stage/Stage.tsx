import { lazy, Suspense, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import type { TopicBox } from '../../core/layout/boxes'
import { MapLayouter } from '../../core/layout/map-layout'
import { backdrop } from '../../core/scene/backdrop'
import { buildScene } from '../../core/scene/scene'
import { isEmpty, keptBy, matches } from '../../core/tree/filter'
import { topicsInOrder } from '../../core/tree/walk'
import { useSession } from '../sync/use-session'
import { composeChild, composeLoose, composeSibling } from '../workspace/acts'
import { showStage } from '../workspace/shown-stages'
import { situationOf } from '../workspace/situation'
import { TextField } from '../workspace/TextField'
import { TopicMenu } from '../workspace/TopicMenu'
import { takeFocus } from '../workspace/take-focus'
import { clipboardHandlers, handleTreeKey } from '../workspace/tree-keys'
import { type Pane, useWorkspace, workspace } from '../workspace/workspace-store'
import { topicTowards } from './arrows'
import { ConnectorMenu } from './ConnectorMenu'
import { CrosslinkLayer } from './CrosslinkLayer'
import { type ChosenConnector, connectorAt } from './connector-at'
import { DrawingElement } from './DrawingElement'
import { barsByHue, FAR, inView } from './far-view'
import { openEnclosure } from './open-enclosure'
import { PourPanel } from './PourPanel'
import styles from './stage.module.css'
import { TopicHandles } from './TopicHandles'
import { TopicNode } from './TopicNode'
import { useBand } from './use-band'
import { useDrag } from './use-drag'
import { dropHandlers } from './use-drop'
import { useMoreFonts } from './use-more-fonts'
import { FollowView, useView } from './use-view'

const DraftPanel = lazy(() => import('../draft/DraftPanel'))
const PictureLibrary = lazy(() => import('../pictures/PictureLibrary'))

/** The face *Map*: the drawn map, to look at and to work on. */
export function Stage({ pane, index }: { pane: Pane; index: number }) {
  const session = useSession()
  const { version } = session
  const fonts = useMoreFonts()
  const { filter } = pane
  const alone = filter?.alone && !isEmpty(filter) ? version : 0
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was measured without the fonts is measured anew.
  const layouter = useMemo(() => {
    const kept = alone && filter ? keptBy(session.records, topicsInOrder(session.records, pane.map), filter) : null
    return new MapLayouter(
      session.records,
      pane.map,
      session.countTopics,
      kept ? (topic) => kept.has(topic.id) : undefined,
    )
  }, [session, pane.map, fonts, alone, alone && filter])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const scene = useMemo(
    () => buildScene(session.records, pane.map, session.countTopics, layouter, pane.only),
    [session, version, pane.map, pane.only, layouter],
  )
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const behind = useMemo(
    () => backdrop(session.records, pane.map, session.pictureAddress),
    [session, version, pane.map],
  )
  const container = useRef<HTMLDivElement>(null)
  const ground = useRef<HTMLDivElement>(null)
  const tree = useRef<HTMLDivElement>(null)
  const group = useRef<SVGGElement>(null)
  const { view, transform, moves, begin, fit, centre, reveal, pointAt, panBy } = useView(container, group, ground)
  const pouring = useWorkspace((state) => state.pouring)
  const drafting = useWorkspace((state) => state.drafting)
  const libraryOpen = useWorkspace((state) => state.libraryOpen)
  const active = useWorkspace((state) => state.active)
  const [menu, setMenu] = useState<{ x: number; y: number } | null>(null)
  const [asked, setAsked] = useState<{ chosen: ChosenConnector; x: number; y: number } | null>(null)
  const chosen = asked?.chosen
  const [hovered, setHovered] = useState<string | null>(null)
  const { layout } = scene
  const drag = useDrag(session, index)
  const band = useBand(index, layout, pointAt)
  useEffect(() => {
    if (container.current) showStage(index, { element: container.current, layout, pointAt, panBy })
    return () => showStage(index, null)
  }, [index, layout, pointAt, panBy])
  const selected = useMemo(() => new Set<string>(pane.selected), [pane.selected])
  const lastSelected = pane.selected.at(-1)
  const held = session.isOpen(pane.map)

  const shown = useRef(0)
  useEffect(() => {
    if (!held || !pane.show || shown.current === pane.show.request) return
    shown.current = pane.show.request
    const { what } = pane.show
    const box = layout.byTopic.get(what)
    const root = layout.boxes[0]
    if (box) centre(box)
    else if (what === 'start' && root) begin(scene.bounds, root)
    else fit(scene.bounds)
    takeFocus(tree.current)
  }, [held, pane.show, layout, scene.bounds, centre, fit, begin])

  const revealed = useRef<string | undefined>(undefined)
  useEffect(() => {
    const key = `${lastSelected} ${pane.editing?.topic}`
    if (revealed.current === key || !lastSelected) return
    const box = layout.byTopic.get(lastSelected)
    if (box) {
      revealed.current = key
      reveal(box)
    }
  }, [lastSelected, pane.editing, layout, reveal])

  const focusStage = useCallback(() => tree.current?.focus({ preventScroll: true }), [])
  const situation = () => situationOf(session, index)
  const drawn = useDeferredValue(view)
  const isFar = drawn.scale < FAR && layout.boxes.length > 60
  const visible = useMemo(() => layout.boxes.filter((box) => inView(box, drawn.drawn)), [layout, drawn])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const faded = useMemo(() => {
    if (!filter || isEmpty(filter)) return null
    return new Set(
      layout.boxes.filter(({ topic }) => !matches(session.records, topic, filter)).map(({ topic }) => topic.id),
    )
  }, [filter, layout, session, version])
  const bars = useMemo(() => (isFar ? barsByHue(visible) : null), [isFar, visible])
  const { editing } = pane
  const editedBox = pane.editing ? layout.byTopic.get(pane.editing.topic) : undefined
  const handled = pane.selected.length === 1 ? layout.byTopic.get(pane.selected[0]!) : undefined
  const plusBox = layout.byTopic.get(hovered ?? lastSelected ?? '')

  const onTopicPointerDown = useCallback(
    (event: React.PointerEvent, box: TopicBox) => {
      if (event.button !== 0) return
      focusStage()
      const { pane: now } = situationOf(session, index)
      const id = box.topic.id
      if (event.shiftKey || event.ctrlKey || event.metaKey)
        workspace.select(
          index,
          now.selected.includes(id) ? now.selected.filter((other) => other !== id) : [...now.selected, id],
        )
      else {
        if (!now.selected.includes(id)) workspace.select(index, [id])
        drag.begin(event, box)
      }
    },
    [session, index, focusStage, drag],
  )

  return (
    <div
      ref={container}
      className={styles.stage}
      data-stage={index}
      style={{ colorScheme: behind.scheme ?? undefined }}
      onPointerDown={(event) => {
        if (event.target !== event.currentTarget && (event.target as Element).tagName !== 'svg') return
        if (event.shiftKey && event.button === 0) {
          event.stopPropagation()
          band.begin(event)
        } else workspace.select(index, [])
      }}
      onClick={(event) => {
        const target = event.target as Element
        if (!session.mayEdit || event.shiftKey || target.closest('[data-topic], button, textarea, [data-enclosure]'))
          return
        const found = connectorAt(scene.connectors, pointAt(event), transform.current.k)
        if (found) setAsked({ chosen: found, x: event.clientX, y: event.clientY })
      }}
      onDoubleClick={(event) => {
        const topic = (event.target as Element).closest('[data-topic]')?.getAttribute('data-topic')
        const box = topic ? layout.byTopic.get(topic) : undefined
        if (box && session.mayEdit) workspace.edit(index, { topic: box.topic.id, text: null })
        else if (!box && session.mayEdit && !(event.target as Element).closest('button, textarea')) {
          const { x, y } = pointAt(event)
          composeLoose(situation(), Math.round(x), Math.round(y))
        }
      }}
      onContextMenu={(event) => {
        const topic = (event.target as Element).closest('[data-topic]')?.getAttribute('data-topic')
        const box = topic ? layout.byTopic.get(topic) : undefined
        if (!box) return
        event.preventDefault()
        if (!selected.has(box.topic.id)) workspace.select(index, [box.topic.id])
        setMenu({ x: event.clientX, y: event.clientY })
      }}
      onPointerOver={(event) =>
        setHovered((event.target as Element).closest('[data-topic]')?.getAttribute('data-topic') ?? hovered)
      }
      onPointerLeave={() => setHovered(null)}
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
      <div
        ref={tree}
        className={styles.tree}
        tabIndex={0}
        role="tree"
        aria-label={`Map ${session.titleOf(pane.map)}`}
        aria-multiselectable
        aria-activedescendant={lastSelected ? `topic-${index}-${lastSelected}` : undefined}
        onFocus={() => workspace.activate(index)}
        onKeyDown={(event) => {
          if (drag.dragged && event.key === 'Escape') drag.giveUp()
          else if (event.key === 'ContextMenu' || (event.key === 'F10' && event.shiftKey)) {
            event.preventDefault()
            const box = layout.byTopic.get(lastSelected ?? '')
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
        <svg className={`scene ${styles.svg}`} role="none">
          <g ref={group} role="none">
            {scene.enclosures.map(({ box, drawing }) =>
              inView(box, drawn.drawn) ? (
                <g key={box.enclosure} onClick={() => openEnclosure(session, box.enclosure)}>
                  <DrawingElement drawing={drawing} />
                </g>
              ) : null,
            )}
            {scene.connectors.map((connector) =>
              inView(connector.bounds, drawn.drawn) ? (
                <DrawingElement key={connector.key} drawing={connector.drawing} />
              ) : null,
            )}
            {chosen && <path className={styles.chosenConnector} d={chosen.connector.lineTo(chosen.child)} />}
            {bars && [...bars].map(([hue, path]) => <path key={hue} d={path} className={`${styles.farBar} ${hue}`} />)}
            {visible.map((box) =>
              bars && !selected.has(box.topic.id) ? null : (
                <TopicNode
                  key={box.topic.id}
                  box={box}
                  pane={index}
                  selected={selected.has(box.topic.id)}
                  editing={editedBox === box}
                  proposed={session.isProposed(box.topic.id)}
                  faded={faded?.has(box.topic.id) ?? false}
                  dropZone={drag.dragged?.target?.box.topic.id === box.topic.id ? drag.dragged.target.zone : null}
                  siblings={box.parent ? session.records.children(box.parent.topic.id) : null}
                  childCount={session.records.children(box.topic.id).length}
                  onPointerDown={onTopicPointerDown}
                />
              ),
            )}
            <CrosslinkLayer lines={scene.crosslinks} layout={layout} view={drawn.drawn} selected={selected} />
          </g>
        </svg>
      </div>
      {plusBox && !pane.editing && !drag.dragged && !bars && session.mayEdit && (
        <FollowView moves={moves} transform={transform}>
          {(at) => (
            <PlusButtons
              box={plusBox}
              transform={at}
              onChild={() => composeChild(situation(), plusBox.topic)}
              onSibling={() => composeSibling(situation(), plusBox.topic)}
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
              style={{
                left: at.applyX(editedBox.x),
                top: at.applyY(editedBox.y),
                minWidth: Math.max(60, (editedBox.width + 8) * at.k),
                maxWidth: (editedBox.style.maxWidth + 40) * at.k,
                fontSize: editedBox.style.size * Math.max(at.k, 0.7),
                fontFamily: `var(--${FONT_OF[editedBox.style.face.split('-')[0]!]}-font)`,
                fontWeight: editedBox.style.face.includes('-bold') ? 600 : 400,
                fontStyle: editedBox.style.italic ? 'italic' : 'normal',
                lineHeight: `${editedBox.style.lineHeight * Math.max(at.k, 0.7)}px`,
                padding: `${editedBox.style.padY * at.k}px 8px`,
              }}
            />
          )}
        </FollowView>
      )}
      {drag.dragged && (
        <div
          className={styles.dragWords}
          style={{ left: drag.dragged.at.x + 14, top: drag.dragged.at.y + 14 }}
          role="status"
        >
          {drag.dragged.words}
        </div>
      )}
      {band.shown && <div className={styles.band} style={band.shown} />}
      {pouring && pouring.index === index && (
        <PourPanel session={session} index={index} topic={pouring.topic} onEnd={focusStage} />
      )}
      {pane.only && (
        <button type="button" className={styles.wholeMap} onClick={() => workspace.showOnly(index, null)}>
          Only {session.nameOf(pane.only)?.text ?? 'this branch'} is shown. Show the whole map
        </button>
      )}
      {layout.boxes.length <= 1 && session.mayEdit && !pane.editing && held && (
        <p className={styles.hint}>Type to rename the topic, press Tab to add one below it, or paste a list.</p>
      )}
      {handled && !pane.editing && !drag.dragged && !bars && session.mayEdit && (
        <FollowView moves={moves} transform={transform}>
          {(at) => <TopicHandles session={session} box={handled} transform={at} />}
        </FollowView>
      )}
      {drafting && drafting.index === index && (
        <Suspense>
          <DraftPanel session={session} index={index} topic={drafting.topic} onEnd={focusStage} />
        </Suspense>
      )}
      {libraryOpen && index === active && (
        <Suspense>
          <PictureLibrary />
        </Suspense>
      )}
      {asked && (
        <ConnectorMenu
          chosen={asked.chosen}
          at={asked}
          situation={situation()}
          onClose={() => {
            setAsked(null)
            focusStage()
          }}
        />
      )}
      {menu && <TopicMenu at={menu} situation={situation()} onClose={() => setMenu(null)} onDone={focusStage} />}
    </div>
  )
}

const FONT_OF: Record<string, string> = { plain: 'interface', reading: 'reading', hand: 'hand' }

/** At the growing side of a topic a plus for a child, and under it one for the next sibling. */
function PlusButtons({
  box,
  transform,
  onChild,
  onSibling,
}: {
  box: TopicBox
  transform: { k: number; applyX(x: number): number; applyY(y: number): number }
  onChild(): void
  onSibling(): void
}) {
  // Beside the number of what is folded away, where there is one.
  const beside = box.hidden > 0 ? 30 : 0
  const edge = transform.applyX(box.growsLeft ? box.x - beside : box.x + box.width + beside)
  // Smaller when the map is far away, so that they do not cover its words.
  const scale = Math.min(1, Math.max(0.55, transform.k))
  const style = {
    left: box.growsLeft ? edge - 11 - 11 * scale : edge - 9 + 11 * scale,
    top: transform.applyY(box.y + box.height / 2) - 10,
    scale,
  }
  const below = {
    left: transform.applyX(box.x + box.width / 2) - 10,
    top: transform.applyY(box.y + box.height) - 9 + 10 * scale,
    scale,
  }
  return (
    <>
      <button
        type="button"
        tabIndex={-1}
        className={styles.plus}
        style={style}
        title="Add a child (Tab)"
        aria-label={`Add a child to ${box.topic.text}`}
        onClick={onChild}
      >
        +
      </button>
      {box.parent && (
        <button
          type="button"
          tabIndex={-1}
          className={styles.plus}
          style={below}
          title="Add a sibling (Enter)"
          aria-label={`Add a sibling after ${box.topic.text}`}
          onClick={onSibling}
        >
          +
        </button>
      )}
    </>
  )
}
