import { z } from 'zod'
import { counted } from '../text/counted'

/** What waits for somebody in a collection, or is new to them, apart from what its maps tell themselves. */
export const Waiting = z.strictObject({
  /** Comments that they have not seen. */
  comments: z.number().int(),
  /** Tasks whose last day is over. */
  overdue: z.number().int(),
  /** Maps that are hard to read; null where there is too much to look through for a number. */
  crowded: z.number().int().nullable(),
  /** Web addresses at which nothing was found when they were last looked at. */
  stale: z.number().int(),
  /** How many changes the site is behind, and the maps in it, null for all; null where there is none, or only some maps are open to them. */
  site: z.strictObject({ behind: z.number().int(), maps: z.array(z.string()).nullable() }).nullable(),
  /** The maps that were changed last, each with its last change, the latest first; none where only some maps are open to them. */
  lately: z.array(z.strictObject({ map: z.string(), title: z.string(), label: z.string(), at: z.string() })),
})
export type Waiting = z.infer<typeof Waiting>

/** A screen of the collection at which something waits, with how much, and what that is in words. */
export interface Wait {
  place: 'comments' | 'dates' | 'crowding' | 'links' | 'publish'
  count: number
  words: string
}

/** What waits, in the order in which it is worth looking at: first what others wait for. */
export function waitsOf({ comments, overdue, crowded, stale, site }: Omit<Waiting, 'lately'>): Wait[] {
  const all: Wait[] = [
    { place: 'dates', count: overdue, words: `${counted(overdue, 'task is', 'tasks are')} overdue` },
    { place: 'comments', count: comments, words: `${counted(comments, 'comment is', 'comments are')} new to you` },
    {
      place: 'crowding',
      count: crowded ?? 0,
      words: `${counted(crowded ?? 0, 'map is', 'maps are')} hard to read`,
    },
    { place: 'links', count: stale, words: `${counted(stale, 'web link leads', 'web links lead')} nowhere` },
    {
      place: 'publish',
      count: site?.behind ?? 0,
      words: `the site is ${counted(site?.behind ?? 0, 'change', 'changes')} behind`,
    },
  ]
  return all.filter(({ count }) => count > 0)
}
