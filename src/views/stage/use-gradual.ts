import { useEffect, useState } from 'react'

/** Elements that come in one frame: what a frame has time for. */
const A_FRAME = 40

const NONE: ReadonlySet<string> = new Set()

/**
 * What is wanted in the page, as far as there has been time to put it there: what is there already, and in each frame
 * some more, those first for which `later` is least. So panning and zooming stay smooth however much comes into view.
 */
export function useGradual<Item>(
  wanted: readonly Item[],
  keyOf: (item: Item) => string,
  later: (item: Item) => number,
): { shown: readonly Item[]; complete: boolean } {
  const [mounted, setMounted] = useState(NONE)
  const missing = wanted.filter((item) => !mounted.has(keyOf(item)))
  const complete = missing.length <= A_FRAME
  let shown = wanted
  if (!complete) {
    const fresh = new Set(missing.sort((a, b) => later(a) - later(b)).slice(0, A_FRAME))
    shown = wanted.filter((item) => mounted.has(keyOf(item)) || fresh.has(item))
  }
  useEffect(() => {
    if (missing.length === 0) return
    const frame = requestAnimationFrame(() => setMounted(new Set(shown.map(keyOf))))
    return () => cancelAnimationFrame(frame)
  })
  return { shown, complete }
}
