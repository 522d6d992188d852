import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import { arranged, hangs, isRoot, type Place } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { ranksBehind } from '../tree/rank'
import { command, namedAll } from './command'
import { copyBranches } from './copy-branches'
import { placesFor } from './hang'
import { headsOnly } from './move-topics'
import { rowsOf } from './sides'

/**
 * Copies branches with their notes, files, web links and enclosures, and with the cross-links among what is copied.
 * Each copy stands behind its original, or, with `onto`, below another topic of any map. Doorways are copied as
 * doorways. Refused where nothing is left to copy, and for roots without `onto`. O(what is copied).
 */
export const duplicateBranches = command((change, args: { topics: readonly TopicId[]; onto: TopicId | null }) => {
  const { records } = change
  const heads = headsOnly(records, args.topics)
  if (heads.length === 0) refuse('gone', 'There is nothing to copy.')
  const onto = args.onto ? change.topic(args.onto) : null
  if (!onto && heads.some(isRoot)) refuse('root', 'A map has one root. Copy it onto a topic instead.')
  const weights = heads.map((head) => rowsOf(records, head))
  const places: readonly Place[] = onto
    ? placesFor(records, { parent: onto, after: 'last' }, weights)
    : placesBehind(records, heads)
  const copies = copyBranches(
    change,
    heads.map((head, i) => ({ head, place: places[i]! })),
  )
  return { label: `Copy ${namedAll(heads, 'branches')}`, select: heads.map(({ id }) => copies.get(id)!) }
})

/** How far a copy of a loose branch stands from its original, in px; it moves on where there is no room. */
const COPY_OFFSET = 40

/** Behind each branch the place of its copy, side by side with it; also where several of one parent are copied. */
function placesBehind(records: Records, heads: readonly TopicRecord[]): Place[] {
  return heads.map(({ id, place }): Place => {
    if (place.kind === 'root' || place.kind === 'to place') refuse('root', 'A map has one root.')
    if (!hangs(place)) return { ...place, x: place.x + COPY_OFFSET, y: place.y + COPY_OFFSET }
    const [rank] = ranksBehind(records, place.parent, id, 1)
    return { ...arranged(place), rank: rank! } as Place
  })
}
