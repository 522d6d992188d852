import { refuse } from '../changes/problem'
import type { HangingPlace, Side } from '../records/place'
import { parentOf, sideOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { type After, ranksBehind } from '../tree/rank'
import { branchWithTrashed } from '../tree/walk'
import { type NewChange, named } from './command'
import { mapsAbove } from './home-doorways'
import { hasSides, rowsOf, sidesForNew } from './sides'

/** Where branches are hung. */
export interface Spot {
  parent: TopicRecord
  after: After
  /** The side on which they are put, where the parent has sides; without it the one policy of `sidesForNew` decides. */
  side?: Side | null
}

const neighbourAt = (records: Records, { after }: Spot): TopicRecord | undefined =>
  after === 'last' || after === null ? undefined : records.get('topic', after)

/**
 * Places for new branches at a spot, one after the other, given the rows that each will fill; left to the layout.
 * O(children of the parent and what they show).
 */
export function placesFor(records: Records, spot: Spot, weights: readonly number[]): HangingPlace[] {
  return places(records, spot, weights, new Set())
}

function places(
  records: Records,
  spot: Spot,
  weights: readonly number[],
  leaving: ReadonlySet<string>,
): HangingPlace[] {
  const { parent, after, side } = spot
  const ranks = ranksBehind(records, parent.id, after, weights.length, leaving)
  const sides = !hasSides(parent)
    ? null
    : side
      ? weights.map(() => side)
      : sidesForNew(records, parent, neighbourAt(records, spot), weights, leaving)
  return ranks.map((rank, i) => ({
    kind: 'arranged',
    map: parent.place.map,
    parent: parent.id,
    rank,
    side: sides?.[i] ?? null,
  }))
}

/**
 * Hangs branches at a spot, one after the other, and lets the layout place them; a folded parent is unfolded. Those that
 * hang on that parent already keep their sides, unless the spot names one. Refused where a branch would come onto a map to
 * which it leads itself by home doorways. O(branches, where they change maps).
 */
export function hang(change: NewChange, topics: readonly TopicRecord[], spot: Spot): void {
  const { records } = change
  for (const topic of topics) refuseCircle(change, topic, spot.parent)
  const moving = new Set<string>(topics.map(({ id }) => id))
  const weights = topics.map((topic) => rowsOf(records, topic))
  const found = places(records, spot, weights, moving)
  topics.forEach((topic, i) => {
    const place = found[i]!
    const kept = parentOf(topic) === spot.parent.id && !spot.side && place.side ? sideOf(topic) : null
    change.update('topic', topic.id, { place: { ...place, side: kept ?? place.side } })
  })
  unfold(change, spot.parent)
}

/** The home doorways of a branch cannot come onto the maps that they lead to. */
function refuseCircle({ records }: NewChange, head: TopicRecord, parent: TopicRecord): void {
  const { map } = parent.place
  if (head.place.map === map) return
  const above = new Set([map, ...mapsAbove(records, map)])
  for (const topic of branchWithTrashed(records, head))
    for (const arriving of records.mapsArrivingBy(topic.id))
      if (above.has(arriving.id))
        refuse('loop', `This branch opens the map ${named(arriving.title)}, so it cannot move into it.`)
}

/** Shows what hangs below a topic, so that what comes there is seen. */
export function unfold(change: NewChange, topic: TopicRecord): void {
  if (topic.folded) change.update('topic', topic.id, { folded: false })
}
