import { type Bounds, boundsOf, type EnclosureBox, type LayoutContext, type MapLayout } from '../layout/boxes'
import { MapLayouter } from '../layout/map-layout'
import { crosslinkIsQuiet } from '../network/crosslinks'
import type { Records } from '../records/records'
import { type Connector, drawConnectors } from './connectors'
import { type CrosslinkLine, crosslinkLine } from './crosslink-line'
import type { Drawing } from './drawing'
import { drawEnclosure } from './enclosure-drawing'

/** Everything that is drawn of a map, in map units. */
export interface Scene {
  layout: MapLayout
  /** What hangs together below one topic: drawn as one piece, and in view when `bounds` is. */
  connectors: readonly Connector[]
  crosslinks: readonly CrosslinkLine[]
  /** Frames, the outer ones first: drawn behind everything else. */
  enclosures: readonly { box: EnclosureBox; drawing: Drawing }[]
  bounds: Bounds
}

const MARGIN = 40

/**
 * Lays out a map and prepares what is to be drawn. Linear in the visible topics and links. Whoever draws a map again
 * and again hands in the layouter that it keeps.
 */
export function buildScene(
  records: Records,
  map: string,
  context: LayoutContext,
  layouter: MapLayouter = new MapLayouter(records, map, context),
  only: string | null = null,
): Scene {
  const layout = layouter.layout(only)
  const crosslinks: CrosslinkLine[] = []
  for (const box of layout.boxes)
    for (const link of records.crosslinksFrom(box.topic.id)) {
      const line = crosslinkIsQuiet(records, link) ? null : crosslinkLine(link, box, layout)
      if (line) crosslinks.push(line)
    }
  crosslinks.sort((a, b) => (a.key < b.key ? -1 : 1))
  const { x, y, width, height } = boundsOf([
    ...(layout.boxes.length > 0 ? [layout.bounds] : []),
    ...crosslinks.map((line) => line.bounds),
  ])
  return {
    layout,
    connectors: drawConnectors(layout),
    crosslinks,
    enclosures: [...layout.enclosures]
      .sort((a, b) => b.width * b.height - a.width * a.height)
      .flatMap((box) => {
        const enclosure = records.get('enclosure', box.enclosure)
        return enclosure ? [{ box, drawing: drawEnclosure(box, enclosure, context.fonts) }] : []
      }),
    bounds: { x: x - MARGIN, y: y - MARGIN, width: width + MARGIN * 2, height: height + MARGIN * 2 },
  }
}
