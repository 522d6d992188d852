import { LRUCache } from 'lru-cache'
import type { MapId } from '../core/records/ids'
import { mayRead } from '../core/rights/grant'
import type { MapPeek } from '../core/scene/thumbnail'
import { numberOf } from './collections'
import { snapshot } from './database'
import { inThread } from './heavy/heavy'
import type { Member } from './http/endpoint'

/** Thumbnails that are kept, some 20 kB each. */
const known = new LRUCache<string, MapPeek>({ max: 500 })

/** The thumbnail of a map; null where there is none that somebody may read. Drawn in a thread, anew when the collection has changed. */
export async function thumbnailFor({ collection, reach }: Member, map: MapId): Promise<MapPeek | null> {
  if (!mayRead(reach, map)) return null
  const number = await snapshot((client) => numberOf(client, collection))
  const key = `${map} ${collection} ${number}`
  const kept = known.get(key)
  if (kept) return kept
  const drawn = await inThread('drawThumbnail', collection, map)
  if (drawn) known.set(key, drawn)
  return drawn
}
