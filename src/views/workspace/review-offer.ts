import { z } from 'zod'
import { MapId } from '../../core/records/ids'

const KEY = 'folvet-review-offered'
const MOST = 200

/** Maps of which this browser knows that their split review was offered, the latest first; null where it keeps nothing. */
function offered(): MapId[] | null {
  try {
    return z.array(MapId).parse(JSON.parse(localStorage.getItem(KEY) ?? '[]'))
  } catch {
    return null
  }
}

/** Whether the split review of a map is to be offered in words: until it was opened or declined once. */
export const isReviewOffered = (map: MapId): boolean => offered()?.includes(map) === false

export function declineReview(map: MapId): void {
  try {
    localStorage.setItem(
      KEY,
      JSON.stringify([map, ...(offered() ?? []).filter((other) => other !== map)].slice(0, MOST)),
    )
  } catch {
    // It is offered again then.
  }
}
