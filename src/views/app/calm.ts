import { useSyncExternalStore } from 'react'

/** How long those who can wait are left alone, in ms: the frame that answers a key is on the screen by then. */
const WAIT_MS = 40

/**
 * A store as it is told to those who can wait: once, a moment after any number of changes. What stands beside the map
 * is drawn from it, so that a key is answered on the map first.
 */
export class Calm<Value> {
  private readonly listeners = new Set<() => void>()
  private timer: ReturnType<typeof setTimeout> | undefined
  private told: Value

  constructor(
    subscribe: (listener: () => void) => unknown,
    private readonly get: () => Value,
  ) {
    this.told = get()
    subscribe(() => {
      this.timer ??= setTimeout(() => this.tell(), WAIT_MS)
    })
  }

  private tell(): void {
    this.timer = undefined
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
