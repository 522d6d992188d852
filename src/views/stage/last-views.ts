import { z } from 'zod'

/** The point of a map that stood in the middle, and the scale. */
const LookedAt = z.object({ x: z.number(), y: z.number(), k: z.number().positive() })
export type LookedAt = z.infer<typeof LookedAt>

/** Kept as long as the tab: on a shared computer nothing of it is left. */
const keyOf = (map: string) => `folvet-view-${map}`

/** Where a map was looked at last in this tab; null where it was not. */
export function lastLookAt(map: string): LookedAt | null {
  try {
    return LookedAt.parse(JSON.parse(sessionStorage.getItem(keyOf(map)) ?? 'null'))
  } catch {
    return null
  }
}

export function rememberLook(map: string, at: LookedAt): void {
  try {
    sessionStorage.setItem(keyOf(map), JSON.stringify(at))
  } catch {
    // Without room for it, the map is seen from its beginning the next time.
  }
}
