import { useSyncExternalStore } from 'react'

/** How long those who can wait are left alone at most, in ms: in a page that nobody sees, and without a page, there are no frames. */
const LONGEST_MS = 250

/** Calls back when the frame that is due has been painted, and the next one has begun. */
function afterPaint(work: () => void): void {
  let isDone = false
  const once = () => {
    if (isDone) return
    isDone = true
    clearTimeout(timer)
    work()
  }
  const timer = setTimeout(once, LONGEST_MS)
  if ('requestAnimationFrame' in globalThis) requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(once)))
}

/**
 * A store as it is told to those who can wait: once, when the frame that answers a change has been painted. What stands
 * beside the map is drawn from it, so that a key is answered on the map first.
 */
export class Calm<Value> {
  private readonly listeners = new Set<() => void>()
  private isDue = false
  private told: Value

  constructor(
    subscribe: (listener: () => void) => unknown,
    private readonly get: () => Value,
  ) {
    this.told = get()
    subscribe(() => {
      if (this.isDue) return
      this.isDue = true
      afterPaint(() => this.tell())
    })
  }

  private tell(): void {
    this.isDue = false
    this.told = this.get()
    for (const listener of this.listeners) listener()
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  /** The value as it was told last. */
  snapshot = (): Value => this.told
}

/** The value of a store for those who can wait. */
export const useCalm = <Value>(calm: Calm<Value>): Value => useSyncExternalStore(calm.subscribe, calm.snapshot)
