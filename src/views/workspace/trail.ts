import { mapsAbove } from '../../core/commands/home-doorways'
import type { MapId } from '../../core/records/ids'
import type { CollectionSession } from '../sync/collection-session'

/** The maps from which one arrives at a map by home doorways, outermost first, with the map itself last. */
export function trailOf(session: CollectionSession, map: MapId): MapId[] {
  const parents = new Map(session.maps.map(({ id, parentMap }) => [id, parentMap]))
  const held = mapsAbove(session.records, map)
  const trail = [map, ...held]
  for (let above = parents.get(trail.at(-1)!); above && !trail.includes(above); above = parents.get(above))
    trail.push(above)
  return trail.reverse()
}
