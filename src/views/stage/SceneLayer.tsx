import { memo, type PointerEvent, type RefObject, useEffect, useLayoutEffect, useMemo, useState } from 'react'
import type { Bounds, TopicBox } from '../../core/layout/boxes'
import type { Connector } from '../../core/scene/connectors'
import type { Scene } from '../../core/scene/scene'
import { useIcons } from '../app/late-parts'
import { useSessionHandle } from '../sync/use-session'
import { CrosslinkLayer } from './CrosslinkLayer'
import type { ChosenConnector } from './connector-at'
import { Drawn, DrawnParts } from './Drawn'
import { inView, within } from './in-view'
import { openEnclosure } from './open-enclosure'
import styles from './stage.module.css'
import { TopicNode } from './TopicNode'
import { useGradual } from './use-gradual'
import type { Moves, View } from './use-view'

interface Props {
  scene: Scene
  view: View
  moves: RefObject<Moves>
  /** Whether topics and connectors are drawn elsewhere, as bars. */
  far: boolean
  pane: number
  selected: ReadonlySet<string>
  faded: ReadonlySet<string> | null
  edited: string | null
  chosen: ChosenConnector | null
  drop: { topic: string; zone: 'into' | 'before' | 'after' } | null
  onPointerDown(event: PointerEvent, box: TopicBox): void
  /** Is given what stands in the page, of boxes and connectors. */
  inPage: RefObject<ReadonlySet<object>>
  /** Told which view has come into the page completely. */
  onComplete(view: View): void
}

/** How long nothing changes on a map that rests, in ms. */
const SETTLES_AFTER = 700

/** Grows when a map has not changed for a moment. */
function useSettled(scene: Scene): number {
  const [settled, setSettled] = useState(0)
  // biome-ignore lint/correctness/useExhaustiveDependencies: every scene begins the wait anew.
  useEffect(() => {
    const timer = setTimeout(() => setSettled((count) => count + 1), SETTLES_AFTER)
    return () => clearTimeout(timer)
  }, [scene])
  return settled
}

/** So many selected topics are there also where they are not seen. */
const MOST_KEPT = 20

const keyOfBox = ({ key }: TopicBox) => key
const keyOfConnector = ({ key }: Connector) => key

/** What is in view of a map, as elements: frames, connectors, topics with roles and names, cross-links. */
export const SceneLayer = memo(
  ({
    scene,
    view,
    moves,
    far,
    pane,
    selected,
    faded,
    edited,
    chosen,
    drop,
    onPointerDown,
    inPage,
    onComplete,
  }: Props) => {
    const session = useSessionHandle()
    const icons = useIcons()
    const { layout } = scene
    const settled = useSettled(scene)
    const { drawn } = view
    const boxes = useMemo(() => {
      const seen = within(layout.boxes, drawn, (box) => box).filter((box) => !far || selected.has(box.topic.id))
      // What is selected is there also out of view, and so is its way to the root: whoever has the map read out stands on it.
      const kept = new Set(seen)
      for (const id of selected.size <= MOST_KEPT ? selected : [])
        for (let box = layout.byKey.of(id); box; box = box.parent ?? undefined) kept.add(box)
      return [...kept]
    }, [layout, drawn, far, selected])
    const connectors = useMemo(
      () => (far ? [] : within(scene.connectors, drawn, ({ bounds }) => bounds)),
      [scene, drawn, far],
    )
    const fromMiddle = ({ x, y, width, height }: Bounds) =>
      Math.hypot(x + width / 2 - drawn.x - drawn.width / 2, y + height / 2 - drawn.y - drawn.height / 2)
    const lastMove = () => moves.current.last
    const topics = useGradual(boxes, keyOfBox, (box) => (selected.has(box.topic.id) ? 0 : fromMiddle(box)), lastMove)
    const lines = useGradual(connectors, keyOfConnector, ({ bounds }) => fromMiddle(bounds), lastMove)
    const frames = scene.enclosures.filter(({ box }) => inView(box, drawn))
    useLayoutEffect(() => {
      inPage.current = new Set<object>([...topics.shown, ...lines.shown, ...frames.map(({ box }) => box)])
    })
    const complete = topics.complete && lines.complete
    useEffect(() => {
      if (complete) onComplete(view)
    }, [complete, view, onComplete])
    return (
      <>
        {frames.map(({ box, drawing }) => (
          <g key={box.key} role="none" onClick={() => openEnclosure(session, box.enclosure)}>
            <Drawn drawing={drawing} />
          </g>
        ))}
        {lines.shown.map((connector) => (
          <DrawnParts key={connector.key} drawing={connector.drawing} />
        ))}
        {chosen && <path className={styles.chosenConnector} d={chosen.connector.lineTo(chosen.child)} />}
        {topics.shown.map((box) => (
          <TopicNode
            key={box.key}
            box={box}
            pane={pane}
            selected={selected.has(box.topic.id)}
            editing={edited === box.topic.id}
            proposed={session.isProposed(box.topic.id)}
            faded={faded?.has(box.topic.id) ?? false}
            dropZone={drop?.topic === box.topic.id ? drop.zone : null}
            siblings={box.parent ? session.records.children(box.parent.topic.id) : null}
            childCount={session.records.children(box.topic.id).length}
            icons={icons}
            settled={settled}
            onPointerDown={onPointerDown}
          />
        ))}
        <CrosslinkLayer scene={scene} view={drawn} selected={selected} />
      </>
    )
  },
)
SceneLayer.displayName = 'SceneLayer'
