import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'

/** A group on the sorting table: the topic that is its title, what is in it, and the bands inside it. */
export interface Band {
  topic: TopicRecord
  items: readonly TopicRecord[]
  bands: readonly Band[]
}

/** What is sorted: bands, and items that are in none yet. */
export interface SortingTable {
  bands: readonly Band[]
  pool: readonly TopicRecord[]
}

/**
 * What hangs on some topics as a sorting table: what has anything below it is a band, and so is what `isBand` calls one, since a
 * band that was just made is empty; all else is an item. Linear in the topics below. Iterative: depth is no limit.
 */
export function sortingTable(
  records: Records,
  holders: readonly { id: string }[],
  isBand: (topic: TopicRecord) => boolean,
): SortingTable {
  const bands: Band[] = []
  const pool: TopicRecord[] = []
  const waiting = holders.map(({ id }) => ({ id, bands, items: pool }))
  for (let at = waiting.shift(); at; at = waiting.shift())
    for (const topic of records.children(at.id)) {
      if (records.children(topic.id).length === 0 && !isBand(topic)) {
        at.items.push(topic)
        continue
      }
      const band = { topic, items: [] as TopicRecord[], bands: [] as Band[] }
      at.bands.push(band)
      waiting.push({ id: topic.id, bands: band.bands, items: band.items })
    }
  return { bands, pool }
}

/** All bands in the order in which they are seen: each, and then those inside it. */
export function* bandsInOrder(bands: readonly Band[]): Generator<{ band: Band; level: number }> {
  const waiting = [...bands].reverse().map((band) => ({ band, level: 0 }))
  for (let at = waiting.pop(); at; at = waiting.pop()) {
    yield at
    for (let i = at.band.bands.length - 1; i >= 0; i--) waiting.push({ band: at.band.bands[i]!, level: at.level + 1 })
  }
}
