import { z } from 'zod'

const MOST = 8
const keyOf = (collection: string) => `folvet-searches ${collection}`

/** What was searched for lately in this browser, the last first. */
export function keptSearches(collection: string): string[] {
  try {
    return z.array(z.string()).parse(JSON.parse(localStorage.getItem(keyOf(collection)) ?? '[]'))
  } catch {
    return []
  }
}

/** Keeps what was searched for and led somewhere. */
export function keepSearch(collection: string, words: string): void {
  const said = words.trim()
  if (said === '') return
  const kept = [said, ...keptSearches(collection).filter((other) => other !== said)].slice(0, MOST)
  try {
    localStorage.setItem(keyOf(collection), JSON.stringify(kept))
  } catch {
    // Where the browser has no room left, nothing is kept.
  }
}
