import type { TopicBox } from '../../core/layout/boxes'
import type { Connector } from '../../core/scene/connectors'
import { inView } from './in-view'

/** How near to a line a press must be, in px of the screen. */
const REACH = 5

/** A connector, and which of the topics hanging on it is meant. */
export interface ChosenConnector {
  connector: Connector
  child: TopicBox
}

const distance = (box: TopicBox, x: number, y: number) =>
  Math.hypot(Math.max(box.x - x, 0, x - box.x - box.width), Math.max(box.y - y, 0, y - box.y - box.height))

/** The connector whose line passes a point of the map, or is close to it, at a scale; the nearest of its children is meant. */
export function connectorAt(
  connectors: readonly Connector[],
  { x, y }: { x: number; y: number },
  scale: number,
): ChosenConnector | null {
  const canvas = document.createElement('canvas').getContext('2d')
  if (!canvas) return null
  const reach = REACH / scale
  canvas.lineWidth = 2 * reach
  const around = { x: x - reach, y: y - reach, width: 2 * reach, height: 2 * reach }
  let best: (ChosenConnector & { far: number }) | null = null
  for (const connector of connectors) {
    if (!inView(connector.bounds, around)) continue
    for (const child of connector.hanging) {
      const far = distance(child, x, y)
      if ((!best || far < best.far) && canvas.isPointInStroke(new Path2D(connector.lineTo(child)), x, y))
        best = { connector, child, far }
    }
  }
  return best
}
