import { memo, type PointerEvent, useMemo } from 'react'
import type { TopicBox } from '../../core/layout/boxes'
import type { Connector } from '../../core/scene/connectors'
import type { Scene } from '../../core/scene/scene'
import { useSessionHandle } from '../sync/use-session'
import { CrosslinkLayer } from './CrosslinkLayer'
import type { ChosenConnector } from './connector-at'
import { Drawn } from './Drawn'
import { inView, within } from './in-view'
import { openEnclosure } from './open-enclosure'
import styles from './stage.module.css'
import { TopicNode } from './TopicNode'
import { useGradual } from './use-gradual'
import type { View } from './use-view'

interface Props {
  scene: Scene
  view: View
  /** Whether topics and connectors are drawn elsewhere, as bars. */
  far: boolean
  pane: number
  selected: ReadonlySet<string>
  faded: ReadonlySet<string> | null
  edited: string | null
  chosen: ChosenConnector | null
  drop: { topic: string; zone: 'into' | 'before' | 'after' } | null
  onPointerDown(event: PointerEvent, box: TopicBox): void
}

const topicOf = ({ topic }: TopicBox) => topic.id
const keyOfConnector = ({ key }: Connector) => key

/** What is in view of a map, as elements: frames, connectors, topics with roles and names, cross-links. */
export const SceneLayer = memo(
  ({ scene, view, far, pane, selected, faded, edited, chosen, drop, onPointerDown }: Props) => {
    const session = useSessionHandle()
    const { layout } = scene
    const { drawn } = view
    const boxes = useMemo(
      () => within(layout.boxes, drawn, (box) => box).filter((box) => !far || selected.has(box.topic.id)),
      [layout, drawn, far, selected],
    )
    const connectors = useMemo(
      () => (far ? [] : within(scene.connectors, drawn, ({ bounds }) => bounds)),
      [scene, drawn, far],
    )
    const shownBoxes = useGradual(boxes, topicOf)
    const shownConnectors = useGradual(connectors, keyOfConnector)
    return (
      <>
        {scene.enclosures.map(({ box, drawing }) =>
          inView(box, drawn) ? (
            <g key={box.enclosure} role="none" onClick={() => openEnclosure(session, box.enclosure)}>
              <Drawn drawing={drawing} />
            </g>
          ) : null,
        )}
        {shownConnectors.map((connector) => (
          <Drawn key={connector.key} drawing={connector.drawing} />
        ))}
        {chosen && <path className={styles.chosenConnector} d={chosen.connector.lineTo(chosen.child)} />}
        {shownBoxes.map((box) => (
          <TopicNode
            key={box.topic.id}
            box={box}
            pane={pane}
            selected={selected.has(box.topic.id)}
            editing={edited === box.topic.id}
            proposed={session.isProposed(box.topic.id)}
            faded={faded?.has(box.topic.id) ?? false}
            dropZone={drop?.topic === box.topic.id ? drop.zone : null}
            siblings={box.parent ? session.records.children(box.parent.topic.id) : null}
            childCount={session.records.children(box.topic.id).length}
            onPointerDown={onPointerDown}
          />
        ))}
        <CrosslinkLayer lines={scene.crosslinks} layout={layout} view={drawn} selected={selected} />
      </>
    )
  },
)
SceneLayer.displayName = 'SceneLayer'
