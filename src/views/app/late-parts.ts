import { useEffect, useSyncExternalStore } from 'react'
import { outlinesMissed } from '../../core/badges/badges'
import { facesMissed } from '../../core/text/measure'

/** What most maps do without, and what is fetched when the first one needs it. */
const PARTS = [
  { missed: facesMissed, fetch: () => import('../../core/text/more-fonts') },
  { missed: outlinesMissed, fetch: () => import('../../core/badges/outlines') },
]

let arrived = 0
const fetching = new Set<(typeof PARTS)[number]>()
const listeners = new Set<() => void>()
const subscribe = (listener: () => void) => {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/**
 * Metrics of further cuts and outlines of icons come when the first text is set in one of them, and the first badge is
 * drawn. Tells how much has come: whoever measured or drew before does so again.
 */
export function useLateParts(): number {
  const known = useSyncExternalStore(subscribe, () => arrived)
  useEffect(() => {
    for (const part of PARTS) {
      if (fetching.has(part) || !part.missed()) continue
      fetching.add(part)
      part.fetch().then(
        () => {
          arrived++
          for (const listener of listeners) listener()
        },
        () => fetching.delete(part),
      )
    }
  })
  return known
}
