import {
  type Bounds,
  boundsOf,
  type EnclosureBox,
  type LayoutContext,
  type MapLayout,
  type TopicBox,
} from '../layout/boxes'
import { MapLayouter } from '../layout/map-layout'
import type { ShownChildren } from '../layout/occurrence'
import { ROOM_AROUND } from '../layout/view'
import { crosslinkIsQuiet } from '../network/crosslinks'
import type { CrosslinkRecord } from '../records/crosslink'
import type { Records } from '../records/records'
import { type Calendar, ENGLISH } from '../text/days'
import { Ground } from '../ways/ground'
import type { Patience } from '../ways/way'
import { type Connector, drawConnectors } from './connectors'
import { type CrosslinkLine, CrosslinkLines, keyOfLine } from './crosslink-line'
import type { Drawing } from './drawing'
import { drawEnclosure, titleBounds } from './enclosure-drawing'
import { withFoldSign } from './topic-drawing'

/** Everything that is drawn of a map, in map units. */
export interface Scene {
  layout: MapLayout
  /** What hangs together below one topic: drawn as one piece, and in view when `bounds` is. */
  connectors: readonly Connector[]
  crosslinks: readonly CrosslinkLine[]
  /** The line of a link from a box, also of one that is not drawn always; null where its end is not shown. */
  lineOf(link: CrosslinkRecord, box: TopicBox): CrosslinkLine | null
  /** What can be read in a rectangle: topics and titles. */
  near(bounds: Bounds): readonly Bounds[]
  /** Whether all lines run as they would with more patience. */
  isSettled: boolean
  /** Frames, the outer ones first: drawn behind everything else. */
  enclosures: readonly { box: EnclosureBox; drawing: Drawing }[]
  bounds: Bounds
}

/** Tiles that may be looked at for a line that is shown for a moment. */
const ALONE = 20_000

/** Lays out a map and prepares what is to be drawn. Linear in the visible topics, times the logarithm where links are drawn. */
export const buildScene = (records: Records, map: string, context: LayoutContext, shown?: ShownChildren): Scene =>
  new SceneMaker(records, context, new MapLayouter(records, map, context, undefined, shown)).make(null)

/** Makes the scene of a map again and again: what has not changed is kept, so that whoever shows it sees that at once. */
export class SceneMaker {
  private readonly lines: CrosslinkLines

  constructor(
    private readonly records: Records,
    private readonly context: LayoutContext,
    private readonly layouter: MapLayouter,
  ) {
    this.lines = new CrosslinkLines(context.fonts)
  }

  /**
   * The whole map, or only the branch of a topic. Branches along time are written as a calendar does. Without
   * patience lines are drawn as they were, or as curves, until they are asked for again; see `isSettled`.
   */
  make(
    only: string | null,
    calendar: Calendar = ENGLISH,
    patience: Patience = { tiles: Number.POSITIVE_INFINITY },
  ): Scene {
    const { records, context, lines } = this
    const layout = this.layouter.layout(only)
    const ground = new Ground(() => obstaclesOn(layout, records, context))
    const drawn: { key: string; link: CrosslinkRecord; box: TopicBox }[] = []
    for (const link of records.all('crosslink'))
      if (!link.trashed && !crosslinkIsQuiet(records, link))
        for (const box of layout.byKey.showing(link.from)) drawn.push({ key: keyOfLine(link, box), link, box })
    drawn.sort((a, b) => (a.key < b.key ? -1 : 1))
    const { lines: crosslinks, areSettled } = lines.drawn(drawn, layout, ground, patience)
    const { x, y, width, height } = boundsOf([
      ...(layout.boxes.length > 0 ? [layout.bounds] : []),
      ...crosslinks.map((line) => line.bounds),
    ])
    return {
      layout,
      connectors: drawConnectors(layout, { ground, calendar }),
      crosslinks,
      lineOf: (link, box) => lines.line(link, box, layout, ground, { tiles: ALONE }),
      near: (bounds) => ground.near(bounds),
      isSettled: areSettled,
      enclosures: [...layout.enclosures]
        .sort((a, b) => b.width * b.height - a.width * a.height)
        .flatMap((box) => {
          const enclosure = records.get('enclosure', box.enclosure)
          return enclosure ? [{ box, drawing: drawEnclosure(box, enclosure, context.fonts) }] : []
        }),
      bounds: {
        x: x - ROOM_AROUND,
        y: y - ROOM_AROUND,
        width: width + ROOM_AROUND * 2,
        height: height + ROOM_AROUND * 2,
      },
    }
  }
}

/** What lines pass around: topics, with the number that a folded one hides, and titles of enclosures. */
function obstaclesOn({ boxes, enclosures }: MapLayout, records: Records, { fonts }: LayoutContext): Bounds[] {
  const titles = enclosures.flatMap((box) => {
    const enclosure = records.get('enclosure', box.enclosure)
    return enclosure ? titleBounds(box, enclosure, fonts) : []
  })
  return [...boxes.map(withFoldSign), ...titles]
}
