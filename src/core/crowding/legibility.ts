import type { LayoutContext, MapLayout } from '../layout/boxes'
import { MapLayouter } from '../layout/map-layout'
import { ownChildren } from '../layout/occurrence'
import { fittingScale, READABLE_PX, ROOM_AROUND, sightsOf } from '../layout/view'
import { Overlay } from '../records/overlay'
import type { Records } from '../records/records'
import { topicsInOrder } from '../tree/walk'

/** The view in which all maps are judged, whatever the window: in px. */
const JUDGED_IN = { width: 1000, height: 640 }

/** A map with nothing folded, and how large its smallest text is when it is fitted into the view in which maps are judged. */
export interface Judged {
  layout: MapLayout
  /** In px. */
  px: number
}

/** Lays out a map with all branches unfolded: to fold hides what is there and makes it no less. Linear in its topics. */
export function judge(records: Records, map: string, context: LayoutContext): Judged {
  const unfolded = withoutFolds(records, map)
  // Laid out once, so that nothing is asked for by its stamp.
  const shown = { ...ownChildren(unfolded), stamp: () => 0 }
  const layout = new MapLayouter(unfolded, map, context, undefined, shown).layout(null)
  const { x, y, width, height } = layout.bounds
  const bounds = {
    x: x - ROOM_AROUND,
    y: y - ROOM_AROUND,
    width: width + 2 * ROOM_AROUND,
    height: height + 2 * ROOM_AROUND,
  }
  const { readable } = sightsOf(layout, bounds)
  return { layout, px: readable === 0 ? READABLE_PX : (READABLE_PX * fittingScale(JUDGED_IN, bounds)) / readable }
}

function withoutFolds(records: Records, map: string): Records {
  const folded = [...topicsInOrder(records, map)].filter((topic) => topic.folded)
  if (folded.length === 0) return records
  const unfolded = new Overlay(records)
  for (const topic of folded) unfolded.put('topic', { ...topic, folded: false })
  return unfolded
}

export const isLegible = ({ px }: Pick<Judged, 'px'>, limits: { px: number }): boolean => px >= limits.px
