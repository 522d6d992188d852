import { z } from 'zod'
import { create } from 'zustand'
import type { MergeReport } from '../../core/commands/merge-maps'

/** From which maps the topics of a merged map came. */
export interface Origins {
  /** Titles, in the order of their hues. */
  titles: string[]
  /** By topic the numbers of the maps that it came from. */
  topics: Record<string, number[]>
}

const Kept = z.object({ titles: z.array(z.string()), topics: z.record(z.string(), z.array(z.number())) })
const keyOf = (map: string) => `folvet-origins ${map}`

const useStore = create<{ of: Record<string, Origins | null> }>(() => ({ of: {} }))

/** What is known of where the topics of a map came from, until it is put away; null where nothing is. */
export const useOrigins = (map: string): Origins | null => useStore(({ of }) => of[map] ?? null)

/** Looks up what was kept when the map was merged. */
export function recallOrigins(map: string): void {
  if (map in useStore.getState().of) return
  let value: unknown = null
  try {
    value = JSON.parse(localStorage.getItem(keyOf(map)) ?? 'null')
  } catch {
    // What cannot be read is as good as put away.
  }
  const origins = Kept.safeParse(value).data ?? null
  useStore.setState(({ of }) => ({ of: { ...of, [map]: origins } }))
}

/** Shows where the topics of a map that was merged came from. */
export function showOrigins({ result, rows }: MergeReport): void {
  const titles: string[] = []
  const topics: Record<string, number[]> = {}
  for (const { topic, from } of rows) {
    if (!titles.includes(from.title)) titles.push(from.title)
    const number = titles.indexOf(from.title) + 1
    const known = (topics[topic] ??= [])
    if (!known.includes(number)) known.push(number)
  }
  const origins = { titles, topics }
  useStore.setState(({ of }) => ({ of: { ...of, [result]: origins } }))
  try {
    localStorage.setItem(keyOf(result), JSON.stringify(origins))
  } catch {
    // Where the browser has no room left, they are shown as long as the page lives.
  }
}

export function putOriginsAway(map: string): void {
  localStorage.removeItem(keyOf(map))
  useStore.setState(({ of }) => ({ of: { ...of, [map]: null } }))
}
