import { useEffect, useState } from 'react'
import { RESTS_AFTER } from './use-view'

/** Elements that come in one frame while the view rests, and while it moves: then the frame belongs to the movement. */
const [RESTING, MOVING] = [40, 4]
/** What comes at once where nothing is in the page yet: as good as all that can be read at a time. */
const FIRST = 400

const NONE: ReadonlySet<string> = new Set()

/**
 * What is wanted in the page, as far as there has been time to put it there: what is there already, and in each frame
 * some more, those first for which `later` is least. So panning and zooming stay smooth however much comes into view.
 */
export function useGradual<Item>(
  wanted: readonly Item[],
  keyOf: (item: Item) => string,
  later: (item: Item) => number,
  lastMove: () => number,
): { shown: readonly Item[]; complete: boolean } {
  const [mounted, setMounted] = useState(NONE)
  const missing = wanted.filter((item) => !mounted.has(keyOf(item)))
  const aFrame = mounted === NONE ? FIRST : performance.now() - lastMove() < RESTS_AFTER ? MOVING : RESTING
  const complete = missing.length <= aFrame
  let shown = wanted
  if (!complete) {
    const fresh = new Set(missing.sort((a, b) => later(a) - later(b)).slice(0, aFrame))
    shown = wanted.filter((item) => mounted.has(keyOf(item)) || fresh.has(item))
  }
  useEffect(() => {
    if (missing.length === 0) return
    const frame = requestAnimationFrame(() => setMounted(new Set(shown.map(keyOf))))
    return () => cancelAnimationFrame(frame)
  })
  return { shown, complete }
}
