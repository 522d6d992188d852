import { useEffect, useState } from 'react'

/** New elements in one frame: what a frame has time for. */
const A_FRAME = 16
/** With a larger part of it new, all is shown at once: the view has jumped, and nobody waits for the rest of it. */
const JUMP = 0.6

const NONE: ReadonlySet<string> = new Set()

/**
 * What is wanted in the page, as far as there has been time to put it there: what is there already, and in each frame
 * some more, so that panning stays smooth however much comes into view.
 */
export function useGradual<Item>(wanted: readonly Item[], keyOf: (item: Item) => string): readonly Item[] {
  const [mounted, setMounted] = useState(NONE)
  const missing = wanted.reduce((count, item) => count + (mounted.has(keyOf(item)) ? 0 : 1), 0)
  let fresh = missing > wanted.length * JUMP ? missing : A_FRAME
  const shown = missing <= fresh ? wanted : wanted.filter((item) => mounted.has(keyOf(item)) || fresh-- > 0)
  useEffect(() => {
    if (missing === 0) return
    const frame = requestAnimationFrame(() => setMounted(new Set(shown.map(keyOf))))
    return () => cancelAnimationFrame(frame)
  })
  return shown
}
