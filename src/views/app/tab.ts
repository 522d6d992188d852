import { v7 as uuid } from 'uuid'

/** This tab, from the loading of its page to its end. */
export const TAB = uuid()

const lockOf = (tab: string) => `folvet-tab ${tab}`

let isTold = false

/** Tells other tabs that this one lives, for as long as it does: a lock goes with its page, also where that page crashes. */
export function tellThatAlive(): void {
  if (isTold) return
  isTold = true
  void navigator.locks?.request(lockOf(TAB), () => new Promise(() => undefined))
}

/** Which of some tabs are gone; none where this browser cannot tell. */
export async function goneTabs(tabs: readonly string[]): Promise<Set<string>> {
  if (!navigator.locks) return new Set()
  const { held = [], pending = [] } = await navigator.locks.query()
  const alive = new Set([...held, ...pending].map(({ name }) => name))
  return new Set(tabs.filter((tab) => !alive.has(lockOf(tab))))
}
