import { useEffect, useSyncExternalStore } from 'react'
import { facesMissed } from '../../core/text/measure'

let state: 'plain' | 'loading' | 'all' = 'plain'
const listeners = new Set<() => void>()
const subscribe = (listener: () => void) => {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** Metrics of the cuts that most maps do not use come when the first text is set in one of them. Tells whether they are here. */
export function useMoreFonts(): boolean {
  const all = useSyncExternalStore(subscribe, () => state === 'all')
  useEffect(() => {
    if (state !== 'plain' || !facesMissed()) return
    state = 'loading'
    import('../../core/text/more-fonts').then(
      () => {
        state = 'all'
        for (const listener of listeners) listener()
      },
      () => {
        state = 'plain'
      },
    )
  })
  return all
}
